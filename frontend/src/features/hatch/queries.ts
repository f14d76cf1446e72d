import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type HatchingClutch = Schemas['HatchingClutchResponse']
export type HatchingEgg = Schemas['HatchingEggResponse']

export const hatchWatchQuery = queryOptions({
  queryKey: ['hatch-watch'],
  queryFn: () => answer(api.GET('/api/hatch-watch')),
})

export const useHatchWatch = () => useQuery(hatchWatchQuery)

export const hatchingClutchQuery = (code: string) =>
  queryOptions({
    queryKey: ['hatch-watch', code],
    queryFn: () => answer(api.GET('/api/clutches/{code}/hatch', { params: { path: { code } } })),
  })

export const useHatchingClutch = (code: string) => useQuery(hatchingClutchQuery(code))
