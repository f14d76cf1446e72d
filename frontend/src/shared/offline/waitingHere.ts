import { NOTHING, type OnThisDevice, waitingOf } from './waiting'

let held: OnThisDevice = NOTHING
let followed = false
const watchers = new Set<() => void>()

/** Calls `watcher` whenever something comes into this device's queues, or leaves them. */
export function watchWaiting(watcher: () => void): () => void {
  watchers.add(watcher)
  if (!followed) void follow()
  return () => watchers.delete(watcher)
}

export const waitingNow = () => held

/** The store is large, and no page needs it before it is drawn. */
async function follow() {
  followed = true
  const [{ liveQuery }, { store }] = await Promise.all([import('dexie'), import('./store')])
  liveQuery(async () =>
    waitingOf(await store.visits.toArray(), await store.photos.toArray()),
  ).subscribe((now) => {
    held = now
    for (const watcher of watchers) watcher()
  })
}
