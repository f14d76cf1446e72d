import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { difference, type TemperatureUnit } from '@/shared/units'

export type Fault = Schemas['FaultResponse']

/** What a fault is called, and what to look at. */
export const FAULT_WORDS: Record<Fault['kind'], { name: string; look: string }> = {
  fan: { name: 'Shelves drifted apart', look: 'Look at the fan, or whatever moves the air.' },
  'power cut': { name: 'Heating failed', look: 'Look at power, fuse, cut-out.' },
  door: { name: 'Door left open', look: 'Look at seal and latch.' },
  overshoot: { name: 'Thermostat swung', look: 'Look where the thermostat’s own probe hangs.' },
  unplugged: { name: 'No readings', look: 'Look at plug, battery, range.' },
  stuck: { name: 'Probe stuck', look: 'Restart the logger.' },
  fallen: { name: 'Probe jumped', look: 'Look whether it hangs where it should.' },
  drift: { name: 'Probe drifts', look: 'Check it against a reference.' },
  'egg heat': { name: 'Eggs warm their place', look: 'Usual late in term.' },
}

/** Of these the readings are wrong, not the temperature. */
export function ofReadings(fault: Fault): boolean {
  return ['unplugged', 'stuck', 'fallen', 'drift'].includes(fault.kind)
}

/** "8 Jun 04:10 to 10 Jun 07:20", or "since 8 Jun 04:10". */
export function spanOf(fault: Fault): string {
  return fault.end
    ? `${dayAndTime(fault.start)} to ${dayAndTime(fault.end)}`
    : `since ${dayAndTime(fault.start)}`
}

/** What a fault did: how far off, on which shelves, and by how much the pips moved. */
export function effectOf(fault: Fault, unit: TemperatureUnit): string {
  const parts: string[] = []
  if (Math.abs(fault.largest_c) >= 0.05) {
    const way = fault.largest_c < 0 ? 'below' : 'above'
    parts.push(`up to ${difference(Math.abs(fault.largest_c), unit)} ${way} its usual`)
  }
  if (fault.degree_hours >= 1) parts.push(`${fault.degree_hours.toFixed(0)} degree-hours`)
  if (Math.abs(fault.delay_days) >= 0.05) {
    const later = fault.delay_days > 0 ? 'later' : 'earlier'
    parts.push(`pips ${Math.abs(fault.delay_days).toFixed(1)} days ${later}`)
  }
  return parts.join(', ')
}
