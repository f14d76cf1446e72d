import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type LostEgg = Schemas['LostEggResponse']
export type RankedCause = Schemas['RankedCauseResponse']

export const lossesQuery = (year: number | null) =>
  queryOptions({
    queryKey: ['losses', year],
    queryFn: () => answer(api.GET('/api/losses', { params: { query: { year } } })),
    // A long record is worked out bit by bit: what was not there at once is there soon.
    refetchInterval: ({ state }) =>
      state.data && state.data.worked_out < state.data.laid ? 1_000 : false,
  })

export const useLosses = (year: number | null) => useQuery(lossesQuery(year))

export const clutchLossesQuery = (code: string) =>
  queryOptions({
    queryKey: ['losses', 'clutch', code],
    queryFn: () => answer(api.GET('/api/clutches/{code}/losses', { params: { path: { code } } })),
  })

export const useClutchLosses = (code: string) => useQuery(clutchLossesQuery(code))

export const findingChoicesQuery = queryOptions({
  queryKey: ['findings'],
  queryFn: () => answer(api.GET('/api/findings')),
  staleTime: Number.POSITIVE_INFINITY,
  refetchInterval: false,
})

export const useFindingChoices = () => useQuery(findingChoicesQuery)
