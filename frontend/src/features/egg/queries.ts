import { queryOptions } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'

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
