import { useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type HatchingClutch = Schemas['HatchingClutchTold']
export type HatchingEgg = Schemas['HatchingEggTold']
export type Hatchling = Schemas['HatchlingTold']

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
