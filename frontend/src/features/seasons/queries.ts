import { useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type Season = Schemas['SeasonsResponse']
export type Group = Schemas['GroupRateResponse']
export type Dimension = Schemas['Dimension']

export function useSeasons(year: number | null) {
  return useQuery({
    queryKey: ['seasons', year],
    queryFn: () => answer(api.GET('/api/seasons', { params: { query: { year } } })),
    // Causes of a long record are worked out bit by bit: each time it is asked, some more.
    refetchInterval: ({ state }) => (state.data?.waiting ? 300 : false),
  })
}

/** Two groups in one sentence; nothing is asked before both are chosen. */
export function useComparison(
  by: Dimension,
  first: string | undefined,
  second: string | undefined,
  year: number | null,
) {
  return useQuery({
    queryKey: ['seasons', 'comparison', by, first, second, year],
    enabled: !!first && !!second && first !== second,
    queryFn: () =>
      answer(
        api.GET('/api/seasons/comparison', {
          params: { query: { by, first: first ?? '', second: second ?? '', year } },
        }),
      ),
  })
}
