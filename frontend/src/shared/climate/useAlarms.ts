import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'

/** Alarms that are open, and those of the last days, newest first. */
export const alarmsQuery = (days = 14) =>
  queryOptions({
    queryKey: ['alarms', days],
    queryFn: () => answer(api.GET('/api/alarms', { params: { query: { days } } })),
  })

export const useAlarms = (days = 14) => useQuery(alarmsQuery(days))

export function useAcknowledge() {
  return useAct(
    (alarm: number) =>
      answer(api.POST('/api/alarms/{alarm}/acknowledgement', { params: { path: { alarm } } })),
    (act) => act,
  )
}
