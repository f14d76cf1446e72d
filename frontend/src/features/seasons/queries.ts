import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type Season = Schemas['SeasonsResponse']
export type Group = Schemas['GroupRateResponse']
export type Reliability = Schemas['ReliabilityResponse']
export type Dimension = Schemas['Dimension']

export const seasonsQuery = (year: number | null) =>
  queryOptions({
    queryKey: ['seasons', year],
    queryFn: () => answer(api.GET('/api/seasons', { params: { query: { year } } })),
    // Causes of a long record are worked out bit by bit: each time it is asked, some more.
    refetchInterval: ({ state }) => (state.data?.waiting ? 300 : false),
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
