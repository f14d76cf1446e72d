import type { Schemas } from '@/shared/api/client'

/** Chances said about alike, and for how many it came. */
export type Bin = Schemas['CalibrationBinResponse']

/** Height of the chart of chances said and come, rem. */
export const RELIABILITY_REM = 15

/** A bin of chances for the chart, in per cent; the more eggs, the larger. */
export type Dot = { said: number; came: number; low: number; high: number; radius: number }

export function dotsOf(bins: readonly Bin[]): Dot[] {
  return bins.map(({ eggs, said, came, low, high }) => ({
    said: 100 * said,
    came: (100 * came) / eggs,
    low: 100 * low,
    high: 100 * high,
    radius: 3.5 + Math.min(6, Math.sqrt(eggs) / 1.6),
  }))
}
