import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

/** Where so many eggs and slugs ("7-2") are likely to lie in a box. */
export const suggestionQuery = (count: string) =>
  queryOptions({
    queryKey: ['suggestion', count],
    queryFn: () => answer(api.GET('/api/lay-day/suggestion', { params: { query: { count } } })),
    retry: false,
  })
