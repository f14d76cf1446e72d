import { zone } from '@/shared/dates'
import { deviceUnit } from '@/shared/units'

/** Who reads the answer on this device: its zone, and its unit where that is its own. */
export function readerHeaders(): Record<string, string> {
  const unit = deviceUnit()
  return { 'Sandboa-Zone': zone(), ...(unit && { 'Sandboa-Unit': unit }) }
}
