import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect } from 'react'
import { askAgainWhoIsHere, useUndo } from '../api/queries'
import { showAct } from '../ui/toaster'
import { deliver } from './delivery'
import { store } from './store'

/** How many visits and photos wait on this device, and how many the house refused. */
export function useWaiting() {
  return (
    useLiveQuery(async () => {
      const visits = await store.visits.toArray()
      const photos = await store.photos.toArray()
      const all = [...visits, ...photos]
      return {
        waiting: all.filter((entry) => !entry.refused).length,
        refused: all.filter((entry) => entry.refused).length,
        codes: visits.filter((entry) => !entry.refused).map((entry) => entry.visit.code),
      }
    }) ?? { waiting: 0, refused: 0, codes: [] as string[] }
  )
}

/** Delivers whatever waits: at once, again with growing pauses, and when the network is back. */
export function useDelivery() {
  const { waiting } = useWaiting()
  const client = useQueryClient()
  const undo = useUndo()
  useQuery({
    queryKey: ['delivery', waiting],
    enabled: waiting > 0,
    queryFn: async () => {
      // Tried again without end, so a refusal never reaches the query cache by itself.
      const told = await deliver().catch((error: unknown) => {
        askAgainWhoIsHere(error)
        throw error
      })
      await client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'delivery' })
      for (const { state, act } of told.visits.slice(-1)) {
        if (state === 'stored' && act) showAct(act.summary, () => undo.mutate(act.id))
      }
      return told
    },
    networkMode: 'always',
    retry: true,
    retryDelay: (attempt) => Math.min(1_000 * 2 ** attempt, 20_000),
    refetchInterval: false,
    staleTime: 0,
    gcTime: 0,
  })
  useEffect(() => {
    const back = () => {
      client.cancelQueries({ queryKey: ['delivery'] })
      client.refetchQueries({ queryKey: ['delivery'] })
    }
    window.addEventListener('online', back)
    return () => window.removeEventListener('online', back)
  }, [client])
  return waiting
}
