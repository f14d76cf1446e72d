import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

export const ownSessionsQuery = queryOptions({
  queryKey: ['own sessions'],
  queryFn: () => answer(api.GET('/api/sessions')),
})
