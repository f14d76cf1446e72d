import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type Hatchling = Schemas['HatchlingResponse']
export type HatchlingLine = Schemas['HatchlingLineResponse']

/** Hatchlings in the house, or with `gone` those held back, away or dead. */
export const hatchlingsQuery = (gone: boolean) =>
  queryOptions({
    queryKey: ['hatchlings', gone],
    queryFn: () => answer(api.GET('/api/hatchlings', { params: { query: { gone } } })),
  })

export const hatchlingQuery = (hatchling: number) =>
  queryOptions({
    queryKey: ['hatchling', hatchling],
    queryFn: () =>
      answer(api.GET('/api/hatchlings/{hatchling}', { params: { path: { hatchling } } })),
  })

export const hatchlingsDueQuery = queryOptions({
  queryKey: ['hatchlings-due'],
  queryFn: () => answer(api.GET('/api/hatchlings/due')),
})
