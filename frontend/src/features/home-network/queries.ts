import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

/** How phones find the house. */
export const homeNetworkQuery = queryOptions({
  queryKey: ['home network'],
  queryFn: () => answer(api.GET('/api/home-network')),
})
