import type { Schemas } from '@/shared/api/client'

export type Entry = Schemas['LogResponse']

/** ms by which something is entered late: within them it is of the moment (assumption). */
export const LATE_MS = 15 * 60_000

/** When what a line tells happened; when it was entered, where nothing else is known. */
export const happenedAt = (entry: Entry): string => entry.at ?? entry.recorded_at

/** Whether it was entered later than it happened. */
export function enteredLate(entry: Entry): boolean {
  return Date.parse(entry.recorded_at) - Date.parse(happenedAt(entry)) > LATE_MS
}

/** The newest act that can still be taken back; undoing an undo is left to the log. */
export function lastUndoable(entries: Entry[]): Entry | undefined {
  return entries.find((entry) => !entry.undone && entry.kind !== 'undo')
}

/** The moments at which the eggs were looked at or watered, each once. */
export function visitsOf(entries: Entry[]): string[] {
  const kinds = ['visit', 'grade', 'candle', 'water']
  const visits = entries.filter((entry) => kinds.includes(entry.kind) && !entry.undone)
  return [...new Set(visits.map(happenedAt))]
}
