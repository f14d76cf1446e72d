import { useQuery } from '@tanstack/react-query'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'

/** Alarms that are open, and those of the last days, newest first. */
export function useAlarms(days = 14) {
  return useQuery({
    queryKey: ['alarms', days],
    queryFn: () => answer(api.GET('/api/alarms', { params: { query: { days } } })),
  })
}

export function useAcknowledge() {
  return useAct(
    (alarm: number) =>
      answer(api.POST('/api/alarms/{alarm}/acknowledgement', { params: { path: { alarm } } })),
    (act) => act,
  )
}
