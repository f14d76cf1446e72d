import { day, dayAndHour, dayRange } from '@/shared/dates'
import { lasted } from './hours'
import type { HatchingClutch } from './queries'

/** What a clutch is waiting for, in one or two sentences. */
export function standingWords(clutch: HatchingClutch, asOf: string): string {
  const fertile = clutch.eggs.filter(({ egg }) => !egg.slug)
  const out = fertile.filter(({ egg }) => egg.emerged_at).length
  if (clutch.finished_at) return `Closed: ${out} of ${fertile.length} hatched.`
  if (!clutch.first_pipped_at) {
    return clutch.first_pip
      ? `First pip likely ${day(clutch.first_pip.p50)}, with a chance of 80\u00a0% in ${dayRange(clutch.first_pip.p10, clutch.first_pip.p90)}.`
      : 'By heat every egg should have pipped long ago: look, candle, and check the probe.'
  }
  const since = `First pip ${lasted(clutch.first_pipped_at, asOf)} ago`
  if (clutch.closed.length === 0) {
    if (out === fertile.length) return `${since}: all are out.`
    const all = clutch.all_out ? ` All are likely out by ${dayAndHour(clutch.all_out.p75)}.` : ''
    return `${since}: none is closed any more.${all}`
  }
  const which =
    clutch.closed.length === 1
      ? `egg ${clutch.closed[0]} is`
      : `eggs ${clutch.closed.join(', ')} are`
  const next = clutch.next_pip
    ? ` The next pip is likely by ${dayAndHour(clutch.next_pip.p75)}.`
    : ''
  return `${since}: ${which} still closed.${next}`
}
