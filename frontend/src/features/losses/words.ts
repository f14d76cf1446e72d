import { dayRange } from '@/shared/dates'
import { percent } from '@/shared/units'
import type { LostEgg } from './queries'

/** "likely too dry (64 %)", "perhaps too dry (38 %)", "not known": words first, number second. */
export function leadWords(cause: string, share: number): string {
  if (cause === 'unknown') return 'not known'
  const how = share >= 0.8 ? 'very likely' : share >= 0.5 ? 'likely' : 'perhaps'
  return `${how} ${cause} (${percent(share)})`
}

/** "It died between 12 % and 30 % developed, 3-9 May": the window in which events can be blamed. */
export function windowWords(egg: LostEgg): string {
  const { died_from, died_by, died_from_share, died_by_share } = egg
  if (!died_from || !died_by || died_from_share === null || died_by_share === null) return ''
  return `Died between ${percent(died_from_share)} and ${percent(died_by_share)} developed, ${dayRange(died_from, died_by)}`
}

/** "Box 26-04 on perlite, cracked corner; North, lower": what is known of where it lay. */
export function stayWords(stay: LostEgg['lain'][number]): string {
  const kind = stay.hatching ? 'hatching box' : 'box'
  const on = stay.medium ? ` on ${stay.medium}` : ''
  const closed = stay.closing ? `, ${stay.closing}` : ''
  return `${kind} ${stay.box}${on}${closed}; ${stay.cabinet}, ${stay.shelf}`
}

/** "5 of 7 hatched, 2 lost" */
export function countWords(line: {
  fertile: number
  hatched: number
  waiting: number
  lost: unknown[]
}): string {
  const parts = [`${line.hatched} of ${line.fertile} hatched`]
  if (line.lost.length) parts.push(`${line.lost.length} lost`)
  if (line.waiting) parts.push(`${line.waiting} still waited for`)
  return parts.join(', ')
}

/** "Two causes speak here at once: too dry and too hot. Either may have done it, or both." */
export function bothWords(causes: readonly string[]): string {
  const number = causes.length === 2 ? 'Two' : 'Several'
  const names = `${causes.slice(0, -1).join(', ')} and ${causes.at(-1)}`
  return `${number} causes speak here at once: ${names}. Either may have done it, or both.`
}
