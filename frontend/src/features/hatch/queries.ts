import { useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type HatchingClutch = Schemas['HatchingClutchResponse']
export type HatchingEgg = Schemas['HatchingEggResponse']
export type Hatchling = Schemas['HatchlingResponse']

export function useHatchWatch() {
  return useQuery({
    queryKey: ['hatch-watch'],
    queryFn: () => answer(api.GET('/api/hatch-watch')),
  })
}

export function useHatchingClutch(code: string) {
  return useQuery({
    queryKey: ['hatch-watch', code],
    queryFn: () => answer(api.GET('/api/clutches/{code}/hatch', { params: { path: { code } } })),
  })
}
