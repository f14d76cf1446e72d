import { type QueryClient, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { follow, isOwn } from '@/shared/api/followed'
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

type Live = {
  house: string
  revision: number
  act: number
  readings: number
  shares: number
  emergencies: number
  alarms: number
}

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
    let seen: Live | null = null
    stream.onopen = () => follow(true)
    stream.onerror = () => follow(false)
    stream.onmessage = (event) => {
      const live = JSON.parse(event.data) as Live
      document.title = titleOf(live)
      if (seen !== null) readWhatChanged(client, seen, live)
      seen = live
    }
    return () => {
      follow(false)
      stream.close()
    }
  }, [client, who])
}

/** Reads again what changed between two tellings of the house. */
function readWhatChanged(client: QueryClient, before: Live, now: Live) {
  if (isNews(before, now)) {
    void readAgain(client)
    return
  }
  if (now.revision !== before.revision) {
    for (const queryKey of OF_THE_CLIMATE) client.invalidateQueries({ queryKey })
  }
  if (now.shares !== before.shares) {
    client.invalidateQueries({ queryKey: ['round', 'shares'] })
  }
}

/** Whether everything is to be read again: another house, an act of somebody else, readings. */
function isNews(before: Live, now: Live): boolean {
  return (
    now.house !== before.house ||
    now.readings !== before.readings ||
    (now.act !== before.act && !isOwn(now.act))
  )
}
