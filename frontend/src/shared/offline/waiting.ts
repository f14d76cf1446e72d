import { boxOf, type QueuedPhoto, type QueuedVisit } from './visit'

export type OnThisDevice = {
  waiting: number
  /** What waits, by name: whatever comes or goes changes it. */
  which: string
  refused: number
  /** Boxes a visit to is on its way. */
  boxes: string[]
}

export const NOTHING: OnThisDevice = { waiting: 0, which: '', refused: 0, boxes: [] }

/** What is in the queues of this device: to be delivered, or refused and kept. */
export function waitingOf(visits: QueuedVisit[], photos: QueuedPhoto[]): OnThisDevice {
  const goingVisits = visits.filter((entry) => !entry.refused)
  const goingPhotos = photos.filter((entry) => !entry.refused)
  const waiting = goingVisits.length + goingPhotos.length
  return {
    waiting,
    which: [
      ...goingVisits.map(({ id }) => `visit ${id}`),
      ...goingPhotos.map(({ id }) => `photo ${id}`),
    ].join(', '),
    refused: visits.length + photos.length - waiting,
    boxes: goingVisits.map((entry) => boxOf(entry.visit)),
  }
}
