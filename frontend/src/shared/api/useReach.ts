import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { readAgain } from './readAgain'
import { under } from './under'

/** ms between two questions whether the house is there: while it is, and while it is not. */
const EVERY_MS = { there: 20_000, away: 4_000 }
/** ms after which no answer is an answer: pages wait ten seconds before they show what is old. */
const PATIENCE_MS = 8_000

/**
 * Whether the house answers. Pages can be shown from what this device keeps, and a page that is
 * open shows what it read last: neither tells, so it is asked.
 */
export function useReach(): boolean {
  const client = useQueryClient()
  const asked = useQuery({
    queryKey: ['alive'],
    queryFn: async () => {
      const answer = await fetch(under('/api/alive'), {
        cache: 'no-store',
        signal: AbortSignal.timeout(PATIENCE_MS),
      })
      if (answer.status >= 500) throw new Error('out of reach')
      return true
    },
    retry: false,
    refetchInterval: (query) =>
      query.state.errorUpdatedAt > query.state.dataUpdatedAt ? EVERY_MS.away : EVERY_MS.there,
    staleTime: 0,
  })
  // Not by the error itself: it is taken back while the question is asked again.
  const away = asked.errorUpdatedAt > asked.dataUpdatedAt
  useEffect(() => {
    const ask = () => void client.refetchQueries({ queryKey: ['alive'] })
    window.addEventListener('offline', ask)
    window.addEventListener('online', ask)
    return () => {
      window.removeEventListener('offline', ask)
      window.removeEventListener('online', ask)
    }
  }, [client])
  useEffect(() => {
    // Back in reach: what is on screen is read anew.
    if (away) return () => void readAgain(client)
  }, [away, client])
  return !away
}
