import { useState } from 'react'

export type Several<Key> = {
  /** Whether rows have ticks. */
  choosing: boolean
  /** Those ticked that are still in the list. */
  chosen: Key[]
  start: () => void
  stop: () => void
  toggle: (key: Key) => void
  /** All that the list shows now; none, where all are ticked. */
  toggleAll: () => void
}

/** Several rows of a list ticked for one act on all of them. */
export function useSeveral<Key>(shown: Key[]): Several<Key> {
  const [ticked, setTicked] = useState<ReadonlySet<Key> | null>(null)
  const chosen = ticked ? shown.filter((key) => ticked.has(key)) : []
  return {
    choosing: ticked !== null,
    chosen,
    start: () => setTicked(new Set()),
    stop: () => setTicked(null),
    toggle: (key) =>
      setTicked((before) => {
        const next = new Set(before)
        if (!next.delete(key)) next.add(key)
        return next
      }),
    toggleAll: () => setTicked(new Set(chosen.length === shown.length ? [] : shown)),
  }
}
