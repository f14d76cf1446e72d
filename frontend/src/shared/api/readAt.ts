import { type QueryClient, replaceEqualDeep } from '@tanstack/react-query'

/** When the house gave an answer, by the answer: one from the device's store keeps its own time. */
const given = new WeakMap<object, number>()

export function noteGiven(data: unknown, response: Response) {
  if (typeof data !== 'object' || data === null) return
  const at = Date.parse(response.headers.get('date') ?? '')
  if (!Number.isNaN(at)) given.set(data, at)
}

/** The query client's own sharing of equal parts, keeping when the newer answer was given. */
export function sharedWithTime(before: unknown, after: unknown): unknown {
  const shared: unknown = replaceEqualDeep(before, after)
  if (typeof after === 'object' && after && typeof shared === 'object' && shared) {
    const at = given.get(after)
    if (at !== undefined) given.set(shared, at)
  }
  return shared
}

/** Not of the house as it stands: these may be as old as they like. */
const TIMELESS = new Set(['rules', 'session', 'alive', 'delivery', 'choices'])

/** When the oldest of what is on screen was read (ms); null when nothing is. */
export function oldestShown(client: QueryClient): number | null {
  const times = client
    .getQueryCache()
    .findAll({ type: 'active' })
    .filter((query) => !TIMELESS.has(String(query.queryKey[0])) && query.state.data !== undefined)
    .map((query) => given.get(query.state.data as unknown as object) ?? query.state.dataUpdatedAt)
  return times.length ? Math.min(...times) : null
}
