import { under } from '@/shared/api/under'
import { answer, api, Problem, problemOf, type Schemas } from '../api/client'
import { readerHeaders } from '../api/readerHeaders'
import { store } from './store'
import { boxOf, type QueuedPhoto, type QueuedVisit } from './visit'

/** Visits brought in one request. */
const TOGETHER = 50

export type Delivered = { visits: Schemas['VisitOutcome'][]; photos: number }

/**
 * Brings what waits on this device to the house, in the order in which it was closed.
 *
 * A visit leaves the queue only when the house has answered for it; asked again it knows the
 * visit by its key, so that a lost answer costs nothing. Throws Problem when the house cannot
 * be reached; everything not answered for is then still here.
 */
export async function deliver(): Promise<Delivered> {
  // Two pages of one device take turns.
  if (!navigator.locks) return deliverAll()
  return navigator.locks.request('sandboa.delivery', deliverAll)
}

async function deliverAll(): Promise<Delivered> {
  const told: Delivered = { visits: [], photos: 0 }
  for (;;) {
    const waiting = await store.visits
      .filter((entry) => !entry.refused)
      .limit(TOGETHER)
      .toArray()
    if (waiting.length === 0) break
    const { outcomes } = await answer(
      api.POST('/api/visits', {
        body: { sent_at: now(), visits: waiting.map((entry) => entry.visit) },
      }),
    )
    for (const [i, outcome] of outcomes.entries()) {
      const entry = waiting[i]
      if (entry) await settle(entry, outcome)
    }
    told.visits.push(...outcomes)
  }
  for (const photo of await store.photos.filter((entry) => !entry.refused).toArray()) {
    if (await deliverPhoto(photo)) told.photos += 1
  }
  return told
}

/** This device's clock; the house shifts what is told by it to its own. */
function now(): string {
  return new Date().toISOString()
}

async function settle(entry: QueuedVisit, outcome: Schemas['VisitOutcome']) {
  const { id, visit } = entry
  if (id === undefined) return
  if (outcome.state === 'refused') {
    await store.visits.update(id, { refused: outcome.reason ?? 'refused' })
    return
  }
  await store.transaction('rw', store.visits, store.conflicts, async () => {
    if (outcome.conflicts.length) {
      await store.conflicts.add({
        code: boxOf(visit),
        closedAt: visit.closed_at,
        words: outcome.conflicts,
      })
    }
    await store.visits.delete(id)
  })
}

async function deliverPhoto(photo: QueuedPhoto): Promise<boolean> {
  if (photo.id === undefined) return false
  const query = new URLSearchParams({
    owner: String(photo.owner),
    taken_at: photo.takenAt,
    sent_at: now(),
  })
  if (photo.egg !== null) query.set('egg', String(photo.egg))
  if (photo.step !== null) query.set('step', photo.step)
  const response = await fetch(under(`/api/photos?${query}`), {
    method: 'POST',
    headers: readerHeaders(),
    body: photo.picture,
  }).catch(() => {
    throw new Problem('Sandboa does not answer.', 0, [])
  })
  if (response.ok) {
    await store.photos.delete(photo.id)
    return true
  }
  const problem = problemOf(await response.json().catch(() => null), response.status)
  // Not signed in, or asked to wait: it stays in the queue.
  if (response.status >= 500 || [401, 403, 429].includes(response.status)) throw problem
  await store.photos.update(photo.id, { refused: problem.detail })
  return false
}
