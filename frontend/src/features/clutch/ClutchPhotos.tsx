import { useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'
import { Photos } from '@/shared/photos/Photos'

/** Photos of the clutch and its eggs, from lay day on. */
export function ClutchPhotos({ clutch }: { clutch: Schemas['ClutchTold'] }) {
  const photos = useQuery({
    queryKey: ['photos', clutch.code],
    queryFn: () =>
      answer(api.GET('/api/clutches/{code}/photos', { params: { path: { code: clutch.code } } })),
  })
  return <Photos photos={photos.data ?? []} of={{ owner: clutch.id }} />
}
