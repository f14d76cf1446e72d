import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

export function useCabinets() {
  return useQuery({ queryKey: ['cabinets'], queryFn: () => answer(api.GET('/api/cabinets')) })
}

export function useCabinet(name: string) {
  return useQuery({
    queryKey: ['cabinets', name],
    queryFn: () => answer(api.GET('/api/cabinets/{name}', { params: { path: { name } } })),
  })
}

/** A span of the cabinet's climate; while another is fetched the one before stays. */
export function useTrace(name: string, from: number, until: number, points: number) {
  return useQuery({
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
}

export function useHeld() {
  return useQuery({
    queryKey: ['held readings'],
    queryFn: () => answer(api.GET('/api/held-readings')),
  })
}
