import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useSyncExternalStore } from 'react'
import { askAgainWhoIsHere, useUndo } from '../api/queries'
import { readAgain } from '../api/readAgain'
import { showAct } from '../ui/toasts'
import { waitingNow, watchWaiting } from './waitingHere'

/** How many visits and photos wait on this device, and how many the house refused. */
export function useWaiting() {
  return useSyncExternalStore(watchWaiting, waitingNow)
}

/** Delivers whatever waits: at once, again with growing pauses, and when the network is back. */
export function useDelivery() {
  const { waiting, which } = useWaiting()
  const client = useQueryClient()
  const undo = useUndo()
  useQuery({
    // By name: a photo that went while a visit came leaves the number as it was.
    queryKey: ['delivery', which],
    enabled: waiting > 0,
    queryFn: async () => {
      const { deliver } = await import('./delivery')
      // Tried again without end, so a refusal never reaches the query cache by itself.
      const told = await deliver().catch((error: unknown) => {
        askAgainWhoIsHere(error)
        throw error
      })
      await readAgain(client)
      for (const { state, act } of told.visits.slice(-1)) {
        if (state === 'stored' && act) showAct(act.summary, () => undo.mutate(act.id))
      }
      return told
    },
    networkMode: 'always',
    retry: true,
    retryDelay: (attempt) => Math.min(1_000 * 2 ** attempt, 20_000),
    refetchInterval: false,
    staleTime: 0,
    gcTime: 0,
  })
  useEffect(() => {
    const back = () => {
      client.cancelQueries({ queryKey: ['delivery'] })
      client.refetchQueries({ queryKey: ['delivery'] })
    }
    window.addEventListener('online', back)
    return () => window.removeEventListener('online', back)
  }, [client])
  return waiting
}
