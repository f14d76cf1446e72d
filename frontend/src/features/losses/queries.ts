import { useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type LostEgg = Schemas['LostEggResponse']
export type RankedCause = Schemas['RankedCauseResponse']

export function useLosses(year: number | null) {
  return useQuery({
    queryKey: ['losses', year],
    queryFn: () => answer(api.GET('/api/losses', { params: { query: { year } } })),
  })
}

export function useClutchLosses(code: string) {
  return useQuery({
    queryKey: ['losses', 'clutch', code],
    queryFn: () => answer(api.GET('/api/clutches/{code}/losses', { params: { path: { code } } })),
  })
}

export function useFindingChoices() {
  return useQuery({
    queryKey: ['findings'],
    queryFn: () => answer(api.GET('/api/findings')),
    staleTime: Number.POSITIVE_INFINITY,
    refetchInterval: false,
  })
}
