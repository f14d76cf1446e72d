import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

/** The end of the program's own log; null in a demo, which keeps none. */
export const programLogQuery = queryOptions({
  queryKey: ['program log'],
  queryFn: () => answer(api.GET('/api/house/log')),
})
