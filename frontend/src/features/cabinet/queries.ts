import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

export const cabinetsQuery = queryOptions({
  queryKey: ['cabinets'],
  queryFn: () => answer(api.GET('/api/cabinets')),
})

export const useCabinets = () => useQuery(cabinetsQuery)

export const cabinetQuery = (name: string) =>
  queryOptions({
    queryKey: ['cabinets', name],
    queryFn: () => answer(api.GET('/api/cabinets/{name}', { params: { path: { name } } })),
  })

export const useCabinet = (name: string) => useQuery(cabinetQuery(name))

/** A span of the cabinet's climate; while another is fetched the one before stays. */
export const traceQuery = (name: string, from: number, until: number, points: number) =>
  queryOptions({
    queryKey: ['cabinets', name, 'trace', from, until, points],
    queryFn: () =>
      answer(
        api.GET('/api/cabinets/{name}/trace', {
          params: {
            path: { name },
            query: {
              start: new Date(from * 1000).toISOString(),
              end: new Date(until * 1000).toISOString(),
              points,
            },
          },
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: false,
    staleTime: 30_000,
  })

export const useTrace = (name: string, from: number, until: number, points: number) =>
  useQuery(traceQuery(name, from, until, points))

export const heldQuery = queryOptions({
  queryKey: ['held readings'],
  queryFn: () => answer(api.GET('/api/held-readings')),
})

export const useHeld = () => useQuery(heldQuery)
