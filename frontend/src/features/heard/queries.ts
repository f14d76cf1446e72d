import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

/** ms between looks: a sensor that was just switched on is to be seen. */
const LOOKED_EVERY_MS = 5_000

/** What speaks around the house. */
export const heardQuery = queryOptions({
  queryKey: ['heard'],
  queryFn: () => answer(api.GET('/api/heard')),
  refetchInterval: LOOKED_EVERY_MS,
})
