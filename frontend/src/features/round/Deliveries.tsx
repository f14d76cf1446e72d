import { chakra, Span } from '@chakra-ui/react'
import { useLiveQuery } from 'dexie-react-hooks'
import { useNavigate } from 'react-router'
import { dayAndTime } from '@/shared/dates'
import { LATE_MS } from '@/shared/log/entries'
import { holdMoment } from '@/shared/moment/moment'
import { store } from '@/shared/offline/store'
import { useWaiting } from '@/shared/offline/useDelivery'
import { boxOf, type QueuedVisit } from '@/shared/offline/visit'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import { Notice } from '@/shared/ui/page'
import { draftOf } from './draft'
import { keepOpen } from './queries'

/** What waits on this device, what the house refused, and what collided with another device. */
export function Deliveries() {
  const { waiting, refused } = useWaiting()
  const conflicts = useLiveQuery(() => store.conflicts.toArray()) ?? []
  const visits = useLiveQuery(() => store.visits.toArray()) ?? []
  const photos = useLiveQuery(() => store.photos.toArray()) ?? []
  if (waiting + refused + conflicts.length === 0) return null
  return (
    <chakra.section aria-label="On this device" display="flex" flexDirection="column" gap={3}>
      {waiting > 0 && (
        <Notice label="On this device">
          {[
            ...counted(visits.filter((entry) => !entry.refused).length, 'visit'),
            ...counted(photos.filter((entry) => !entry.refused).length, 'photo'),
          ].join(' and ')}{' '}
          {waiting === 1 ? 'waits' : 'wait'} for the house
          {visits.some((entry) => !entry.refused) && ': '}
          {visits
            .filter((entry) => !entry.refused)
            .map(({ visit }) => `${boxOf(visit)} (${dayAndTime(visit.closed_at)})`)
            .join(', ')}
          . Nothing is lost; they go out by themselves, in this order.
        </Notice>
      )}
      {photos
        .filter((entry) => entry.refused)
        .map((entry) => (
          <Notice
            key={entry.id}
            urgent
            label={`Photo of egg ${entry.egg}, ${dayAndTime(entry.takenAt)}, not kept`}
          >
            {sentence(entry.refused ?? '')}{' '}
            <Button
              variant="bare"
              size="small"
              onClick={() => entry.id !== undefined && store.photos.delete(entry.id)}
            >
              Drop it
            </Button>
          </Notice>
        ))}
      {visits
        .filter((entry) => entry.refused)
        .map((entry) => (
          <RefusedVisit key={entry.id} entry={entry} />
        ))}
      {conflicts.map((conflict) => (
        <Notice key={conflict.id} urgent label={`Box ${conflict.code}`}>
          {conflict.words.map((words) => (
            <Span key={words} display="block">
              {words}
            </Span>
          ))}
          <Button
            variant="bare"
            size="small"
            onClick={() => conflict.id !== undefined && store.conflicts.delete(conflict.id)}
          >
            Seen
          </Button>
        </Notice>
      ))}
    </chakra.section>
  )
}

function RefusedVisit({ entry }: { entry: QueuedVisit }) {
  const navigate = useNavigate()
  const { id, visit } = entry
  if (id === undefined) return null
  const mend = async () => {
    await keepOpen(draftOf(visit))
    // It happened then, however late it is mended.
    const late = Date.now() - Date.parse(visit.closed_at) > LATE_MS
    holdMoment(late ? visit.closed_at : null)
    await store.visits.delete(id)
    navigate(`/round/${encodeURIComponent(boxOf(visit))}`)
  }
  return (
    <Notice urgent label={`Visit to ${boxOf(visit)}, ${dayAndTime(visit.closed_at)}, not recorded`}>
      {sentence(entry.refused ?? '')}
      <Span display="flex" gap={2} mt={1}>
        <Button size="small" onClick={mend}>
          Open it again
        </Button>
        <Button variant="bare" size="small" onClick={() => store.visits.delete(id)}>
          Drop it
        </Button>
      </Span>
    </Notice>
  )
}

function counted(number: number, what: string): string[] {
  if (number === 0) return []
  return [number === 1 ? `One ${what}` : `${number} ${what}s`]
}
