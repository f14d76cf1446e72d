import { format, parseISO, roundToNearestHours } from 'date-fns'

/** "12 Mar", unambiguous everywhere. Times are shown in the keeper's zone. */
export function day(moment: string | Date): string {
  return format(new Date(moment), 'd MMM')
}

/** "12 Mar 14:05" */
export function dayAndTime(moment: string | Date): string {
  return format(new Date(moment), 'd MMM HH:mm')
}

/** "12 Mar 14:00", the nearest hour: for what is likely, and no more exact than that. */
export function dayAndHour(moment: string | Date): string {
  return format(roundToNearestHours(new Date(moment)), 'd MMM HH:mm')
}

/** "12 Mar 2026, 14:05" */
export function fullMoment(moment: string | Date): string {
  return format(new Date(moment), 'd MMM yyyy, HH:mm')
}

/** "12 Mar 2026" */
export function fullDay(moment: string | Date): string {
  return format(new Date(moment), 'd MMM yyyy')
}

/** "12 Mar 2026" of a day without a time, like 2026-03-12: the same wherever it is read. */
export function plainDay(iso: string): string {
  return format(parseISO(iso), 'd MMM yyyy')
}

/** "14-22 Jul" or "28 Jun-3 Jul" */
export function dayRange(from: string, to: string): string {
  const [a, b] = [new Date(from), new Date(to)]
  if (format(a, 'd MMM') === format(b, 'd MMM')) return day(b)
  return format(a, 'MMM yyyy') === format(b, 'MMM yyyy')
    ? `${format(a, 'd')}\u2013${format(b, 'd MMM')}`
    : `${format(a, 'd MMM')}\u2013${format(b, 'd MMM')}`
}

/** ms for which the zone holds that was asked for: asking costs milliseconds, and requests ask. */
const ZONE_HOLDS_MS = 60_000
let asked = { zone: '', until: 0 }

/** The keeper's time zone by its IANA name, like Europe/Berlin. */
export function zone(): string {
  if (Date.now() >= asked.until) {
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions()
    asked = { zone: timeZone, until: Date.now() + ZONE_HOLDS_MS }
  }
  return asked.zone
}

/** The value a datetime-local input wants. */
export function inputMoment(moment: string | Date): string {
  return format(new Date(moment), "yyyy-MM-dd'T'HH:mm")
}

/** What a datetime-local input gave, with the offset of the keeper's zone on that day. */
export function fromInputMoment(text: string): string {
  return format(new Date(text), "yyyy-MM-dd'T'HH:mm:ssxxx")
}

/** "22:00" of minutes after midnight. */
export function clockOf(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
}
