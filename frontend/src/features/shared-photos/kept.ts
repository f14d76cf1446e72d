import { useQuery, useQueryClient } from '@tanstack/react-query'

/** Where the worker keeps what was shared (public/share-worker.js). */
const KEPT = 'shared photos'

export type SharedPhoto = { address: string; picture: Blob; takenAt: string }

/** Photos that were shared to the application and wait for a place. */
export function useSharedPhotos() {
  const client = useQueryClient()
  const photos = useQuery({ queryKey: ['shared-photos'], queryFn: read, networkMode: 'always' })
  const forget = async (taken: SharedPhoto[]) => {
    const kept = await caches.open(KEPT)
    await Promise.all(taken.map(({ address }) => kept.delete(address)))
    await client.invalidateQueries({ queryKey: ['shared-photos'] })
  }
  return { photos: photos.data, error: photos.error, forget }
}

async function read(): Promise<SharedPhoto[]> {
  if (!('caches' in window)) return []
  const kept = await caches.open(KEPT)
  const found: SharedPhoto[] = []
  for (const { url } of await kept.keys()) {
    const answer = await kept.match(url)
    if (!answer) continue
    const told = Date.parse(answer.headers.get('Last-Modified') ?? '')
    // A file may claim to be of tomorrow.
    const taken = Number.isNaN(told) ? Date.now() : Math.min(told, Date.now())
    const takenAt = new Date(taken).toISOString()
    found.push({ address: url, picture: await answer.blob(), takenAt })
  }
  return found
}
