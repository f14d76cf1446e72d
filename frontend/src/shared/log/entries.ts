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

/** Where what several forms make up together is corrected, by the kind of the line. */
const PLACES: Record<string, (code: string) => string> = {
  lay: (code) => `/clutches/${code}/correct`,
  origin: (code) => `/clutches/${code}/correct`,
  fate: (code) => `/hatch/${code}`,
  pip: (code) => `/hatch/${code}`,
  emergence: (code) => `/hatch/${code}`,
  hatchling: (code) => `/hatch/${code}`,
  opening: (code) => `/losses/${code}`,
}

/** The page on which a line's record is corrected; null where it is corrected in the line. */
export function pageOf(entry: Entry): string | null {
  if (entry.visit !== null) return `/visits/${entry.visit}`
  if (entry.correctable || entry.undone || entry.clutch === null) return null
  return PLACES[entry.kind]?.(entry.clutch) ?? null
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
