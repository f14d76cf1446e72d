import type { Schemas } from '@/shared/api/client'

export type Forecast = Schemas['ForecastResponse']
export type Window = Schemas['WindowResponse']
export type Piece = Schemas['RibbonPieceResponse']

const DAY_MS = 86_400_000

/** Development to be expected at a moment after `as_of`: a straight line at today's rate. */
export function developmentAt(forecast: Forecast, moment: string): number {
  const days = (Date.parse(moment) - Date.parse(forecast.as_of)) / DAY_MS
  return forecast.development + days * forecast.rate_per_day
}

/** Development on a moment, in ms since 1970: as it was, or at today's rate when it lies ahead. */
export function developmentOn(moment: number, forecast: Forecast, pieces: Piece[]): number {
  const piece = pieces.find((p) => Date.parse(p.end) >= moment)
  if (!piece) {
    const days = (moment - Date.parse(forecast.as_of)) / DAY_MS
    return forecast.development + Math.max(0, days) * forecast.rate_per_day
  }
  const [start, stop] = [Date.parse(piece.start), Date.parse(piece.end)]
  const share = Math.max(0, (moment - start) / (stop - start))
  return piece.development_start + share * (piece.development_end - piece.development_start)
}

/** The moment at which `development` is expected, in ms since 1970. */
export function momentOf(forecast: Forecast, development: number): number {
  const days = (development - forecast.development) / forecast.rate_per_day
  return Date.parse(forecast.as_of) + days * DAY_MS
}

/** Standard deviations of a normal within which the middle 80 % lie, to either side. */
const Z80 = 1.2816

/**
 * Density of the typical pip over development, as points from `from` to `to`, 1 at its middle.
 * As wide to either side as its window is; what is behind is ruled out while no egg has pipped.
 */
export function pipDensity(forecast: Forecast, from: number, to: number, points = 72) {
  const pip = forecast.typical_pip
  if (!pip) return []
  const [low, middle, high] = [pip.p10, pip.p50, pip.p90].map((at) => developmentAt(forecast, at))
  if (low === undefined || middle === undefined || high === undefined) return []
  // Once all pips are known there is no width left to draw.
  const before = Math.max((middle - low) / Z80, 1e-4)
  const after = Math.max((high - middle) / Z80, 1e-4)
  const start = forecast.pipped ? from : Math.max(from, forecast.development)
  const [first, last] = [Math.max(start, middle - 4 * before), Math.min(to, middle + 4 * after)]
  return Array.from({ length: points }, (_, i) => {
    const development = first + ((last - first) * i) / (points - 1)
    const z = (development - middle) / (development < middle ? before : after)
    return { development, density: Math.exp(-(z * z) / 2) }
  })
}

/** How high a density stands above its ribbon, px: the narrower, the taller, to a limit. */
export function heightOf(forecast: Forecast): number {
  const pip = forecast.typical_pip
  if (!pip) return 0
  const wide = developmentAt(forecast, pip.p90) - developmentAt(forecast, pip.p10)
  return Math.min(58, (2.7 * 2 * Z80) / Math.max(wide, 1e-3))
}

/** The colour token of each class of exposure. */
const COLOURS: Record<Piece['exposure'], string> = {
  cold: 'cold2',
  cool: 'cold1',
  fine: 'mild',
  warm: 'warm1',
  hot: 'warm2',
}

export type Run = { from: number; to: number; colour: string; measured: boolean }

/** The ribbon's pieces with neighbours of one colour joined, from and to in development. */
export function exposureRuns(pieces: Piece[]): Run[] {
  const runs: Run[] = []
  for (const piece of pieces) {
    const colour = COLOURS[piece.exposure]
    const last = runs.at(-1)
    if (last && last.colour === colour && last.measured === piece.measured) {
      last.to = piece.development_end
    } else {
      const { development_start: from, development_end: to, measured } = piece
      runs.push({ from, to, colour, measured })
    }
  }
  return runs
}
