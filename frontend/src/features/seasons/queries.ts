import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type Season = Schemas['SeasonsResponse']
export type Group = Schemas['GroupRateResponse']
export type Dimension = Schemas['Dimension']

export const seasonsQuery = (year: number | null) =>
  queryOptions({
    queryKey: ['seasons', year],
    queryFn: () => answer(api.GET('/api/seasons', { params: { query: { year } } })),
    // A long record is worked out bit by bit: what was not there at once is there soon.
    refetchInterval: ({ state }) => (state.data?.waiting || state.data?.uncounted ? 1_000 : false),
  })

export const useSeasons = (year: number | null) => useQuery(seasonsQuery(year))

/** Two groups in one sentence; nothing is asked before both are chosen. */
export const comparisonQuery = (
  by: Dimension,
  first: string | undefined,
  second: string | undefined,
  year: number | null,
) =>
  queryOptions({
    queryKey: ['seasons', 'comparison', by, first, second, year],
    enabled: !!first && !!second && first !== second,
    queryFn: () =>
      answer(
        api.GET('/api/seasons/comparison', {
          params: { query: { by, first: first ?? '', second: second ?? '', year } },
        }),
      ),
  })

export const useComparison = (
  by: Dimension,
  first: string | undefined,
  second: string | undefined,
  year: number | null,
) => useQuery(comparisonQuery(by, first, second, year))
