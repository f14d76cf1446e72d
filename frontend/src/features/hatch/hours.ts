import type { HatchingClutch } from './queries'

const HOUR_MS = 3_600_000
/** Hours shown before the first pip, and at least after now. */
const BEFORE = 6
const AFTER = 24
const LONGEST_AHEAD = 72

/** The hours a clutch's strip spans, ms since 1970; `zero` is the first pip, or now without one. */
export type HourSpan = { from: number; to: number; zero: number; now: number }

export function spanOf(clutch: HatchingClutch, asOf: string): HourSpan {
  const now = Date.parse(asOf)
  const zero = clutch.first_pipped_at ? Date.parse(clutch.first_pipped_at) : now
  const last = clutch.last_pip ? Date.parse(clutch.last_pip.p90) : now
  const out = clutch.eggs.flatMap((e) => (e.emergence ? [Date.parse(e.emergence.p90)] : []))
  const ahead = Math.max(last, ...out, now + AFTER * HOUR_MS)
  return {
    from: zero - BEFORE * HOUR_MS,
    to: Math.min(ahead, now + LONGEST_AHEAD * HOUR_MS),
    zero,
    now,
  }
}

/** Place of a moment on the strip, in percent of its width, never beyond its ends. */
export function placeOf(moment: string | number, { from, to }: HourSpan): number {
  const ms = typeof moment === 'number' ? moment : Date.parse(moment)
  return 100 * Math.min(1, Math.max(0, (ms - from) / (to - from)))
}

/** Hours to write along the strip, counted from the first pip; `most` of them at most. */
export function ticksOf({ from, to, zero }: HourSpan, most = 8): number[] {
  const hours = (to - zero) / HOUR_MS
  const step = [6, 12, 24, 48, 96].find((s) => hours / s < most) ?? 168
  const ticks = []
  for (let hour = 0; zero + hour * HOUR_MS <= to; hour += step) {
    if (zero + hour * HOUR_MS >= from) ticks.push(hour)
  }
  return ticks
}

export function momentAt(hour: number, { zero }: HourSpan): number {
  return zero + hour * HOUR_MS
}

/** "9 h", "2 days 4 h": how long something has lasted by then. */
export function lasted(since: string, asOf: string): string {
  const hours = Math.max(0, Math.round((Date.parse(asOf) - Date.parse(since)) / HOUR_MS))
  if (hours < 72) return `${hours}\u00a0h`
  const days = Math.floor(hours / 24)
  const rest = hours % 24
  return `${days}\u00a0days${rest ? ` ${rest}\u00a0h` : ''}`
}
