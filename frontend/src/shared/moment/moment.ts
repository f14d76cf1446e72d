import { useSyncExternalStore } from 'react'

/**
 * The moment for which things are entered: now, or another that is kept while several things of
 * one moment are entered, in this tab and until it was not used for an hour.
 */
type Held = { moment: string; usedAt: number }

const KEY = 'sandboa.moment'

/** ms after its last use that a moment is forgotten (assumption: a keeper went to do other things). */
export const FORGOTTEN_AFTER_MS = 60 * 60_000

const listeners = new Set<() => void>()

/** The moment held, with its offset; null for now. */
export function heldMoment(now = Date.now()): string | null {
  const text = sessionStorage.getItem(KEY)
  if (!text) return null
  const held = JSON.parse(text) as Held
  return now - held.usedAt > FORGOTTEN_AFTER_MS ? null : held.moment
}

/** Enter for another moment, or for now again. */
export function holdMoment(moment: string | null, now = Date.now()): void {
  if (moment === null) sessionStorage.removeItem(KEY)
  else sessionStorage.setItem(KEY, JSON.stringify({ moment, usedAt: now } satisfies Held))
  for (const told of listeners) told()
}

/** The moment of what is recorded just now, as the API wants it: null for now. */
export function takeMoment(): string | null {
  const moment = heldMoment()
  if (moment !== null) holdMoment(moment)
  return moment
}

function subscribe(told: () => void): () => void {
  listeners.add(told)
  return () => listeners.delete(told)
}

/** The moment held, and how to hold another. */
export function useMoment(): [string | null, (moment: string | null) => void] {
  return [useSyncExternalStore(subscribe, heldMoment), holdMoment]
}
