import { useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'
import { Photos } from './Photos'

type Props = {
  clutch: Schemas['ClutchResponse']
  /** Only those taken at that step of lay day. */
  step?: Schemas['Step']
}

/** Photos of the clutch and its eggs, from lay day on. */
export function ClutchPhotos({ clutch, step }: Props) {
  const { data = [] } = useQuery({
    queryKey: ['photos', clutch.code],
    queryFn: () =>
      answer(api.GET('/api/clutches/{code}/photos', { params: { path: { code: clutch.code } } })),
  })
  return (
    <Photos
      photos={step ? data.filter((photo) => photo.step === step) : data}
      of={{ owner: clutch.id, ...(step && { step }) }}
    />
  )
}
