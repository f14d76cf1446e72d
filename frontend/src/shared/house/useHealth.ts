import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type Health = Schemas['HealthResponse']

const QUIETLY_MS = 60_000
const WATCHING_MS = 1_500

/** How the house itself is; asked for more often while it is being restored. */
export const healthQuery = (admitted: boolean) =>
  queryOptions({
    queryKey: ['health'],
    queryFn: () => answer(api.GET('/api/health')),
    enabled: admitted,
    refetchInterval: ({ state }) => (state.data?.restoring ? WATCHING_MS : QUIETLY_MS),
  })

export const useHealth = (admitted: boolean) => useQuery(healthQuery(admitted))

/** "5 days", "3 hours", "20 minutes": how far a clock is off. */
export function span(seconds: number): string {
  const [count, unit] =
    seconds >= 2 * 86_400
      ? [seconds / 86_400, 'day']
      : seconds >= 2 * 3_600
        ? [seconds / 3_600, 'hour']
        : [seconds / 60, 'minute']
  const whole = Math.max(1, Math.round(count))
  return `${whole} ${unit}${whole === 1 ? '' : 's'}`
}
