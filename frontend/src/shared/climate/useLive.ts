import { useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { readAgain } from '@/shared/api/readAgain'
import { under } from '@/shared/api/under'

const TITLE = 'Sandboa'

/** What an alarm can change on an open page. */
const OF_THE_CLIMATE = [
  ['alarms'],
  ['today'],
  ['cabinets'],
  ['readiness'],
  ['held readings'],
  ['health'],
]

type Live = { house: string; revision: number; emergencies: number; alarms: number }

/** Title of the page: how many alarms nobody has seen yet, emergencies called by name. */
export function titleOf({ emergencies, alarms }: Pick<Live, 'emergencies' | 'alarms'>): string {
  if (emergencies > 0) return `(${emergencies + alarms}) EMERGENCY · ${TITLE}`
  return alarms > 0 ? `(${alarms}) ${TITLE}` : TITLE
}

/**
 * Follows the house: what is wrong stands in the title, and open pages read again. The house
 * tells only whoever may come in: begun again when `who` changes, not at all while nobody may.
 */
export function useLive(who: string | null) {
  const client = useQueryClient()
  useEffect(() => {
    if (who === null) return
    const stream = new EventSource(under('/api/live'))
    let seen: number | null = null
    let house: string | null = null
    stream.onmessage = (event) => {
      const live = JSON.parse(event.data) as Live
      document.title = titleOf(live)
      if (house !== null && live.house !== house) {
        // The house was taken back to a copy: nothing on any page holds any more.
        readAgain(client)
      } else if (seen !== null && live.revision !== seen) {
        for (const queryKey of OF_THE_CLIMATE) client.invalidateQueries({ queryKey })
      }
      seen = live.revision
      house = live.house
    }
    return () => stream.close()
  }, [client, who])
}
