import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

export const messengersQuery = queryOptions({
  queryKey: ['messengers'],
  queryFn: () => answer(api.GET('/api/messengers')),
})

/** What was sent lately. */
export const messagesQuery = queryOptions({
  queryKey: ['messages'],
  queryFn: () => answer(api.GET('/api/messengers/messages')),
})
