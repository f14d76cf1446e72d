import type { Schemas } from '@/shared/api/client'
import { clockOf } from '@/shared/dates'

export type Messenger = Schemas['MessengerResponse']
export type Kind = Messenger['kind']

export const KINDS: Record<Kind, string> = {
  email: 'e-mail',
  webhook: 'webhook',
  push: 'this phone or computer',
  'record only': 'kept here only',
}

/** What goes out by a messenger, by gravity. */
export const GRAVITY: Record<Messenger['gravity'], string> = {
  notice: 'everything',
  alarm: 'alarms and emergencies',
  emergency: 'emergencies only',
}

/** Minutes after midnight of "22:00"; null when left empty. */
export function minuteOf(text: string): number | null {
  const [hours, minutes] = text.split(':').map(Number)
  return text && hours !== undefined && minutes !== undefined ? hours * 60 + minutes : null
}

/** "quiet 22:00 to 07:00", or nothing. */
export function quietInWords(
  messenger: Pick<Messenger, 'quiet_from_min' | 'quiet_until_min'>,
): string | null {
  const { quiet_from_min: from, quiet_until_min: until } = messenger
  if (from === null || until === null || from === until) return null
  return `quiet ${clockOf(from)} to ${clockOf(until)}`
}
