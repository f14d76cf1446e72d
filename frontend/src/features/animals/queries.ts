import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

/** Ids of a dam and a sire; asked once both are chosen. */
export const oddsQuery = (dam: number | undefined, sire: number | undefined) =>
  queryOptions({
    queryKey: ['odds', dam, sire],
    enabled: dam !== undefined && sire !== undefined,
    queryFn: () =>
      answer(api.GET('/api/pairs/odds', { params: { query: { dam: dam ?? 0, sire: sire ?? 0 } } })),
  })

export const genesQuery = queryOptions({
  queryKey: ['genes'],
  queryFn: () => answer(api.GET('/api/genes')),
})
