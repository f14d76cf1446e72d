import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

export const asLaidQuery = (code: string, number: number) =>
  queryOptions({
    queryKey: ['egg-as-laid', code, number],
    queryFn: () =>
      answer(
        api.GET('/api/clutches/{code}/eggs/{number}/as-laid', {
          params: { path: { code, number } },
        }),
      ),
  })

export const eggQuery = (code: string, number: string) =>
  queryOptions({
    queryKey: ['egg', code, number],
    queryFn: () =>
      answer(
        api.GET('/api/clutches/{code}/eggs/{number}', {
          params: { path: { code, number: Number(number) } },
        }),
      ),
  })
