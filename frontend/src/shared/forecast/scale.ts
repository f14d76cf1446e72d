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

/**
 * Density of the typical pip over development, as points from `from` to `to`.
 * Lognormal around 1; what would have had the first egg out by today is ruled out.
 */
export function pipDensity(forecast: Forecast, from: number, to: number, points = 72) {
  const ahead = Math.max(from, forecast.development + firstEggsLead(forecast))
  const values = Array.from({ length: points }, (_, i) => {
    const development = ahead + ((to - ahead) * i) / (points - 1)
    const z = Math.log(development) / forecast.log_sd
    return { development, density: Math.exp(-(z * z) / 2) / development }
  })
  const highest = Math.max(...values.map((v) => v.density))
  return values.map((v) => ({ ...v, density: v.density / highest }))
}

/** By how much development the first egg is ahead of the typical one. */
function firstEggsLead({ first_pip, typical_pip, rate_per_day }: Forecast): number {
  if (!first_pip || !typical_pip) return 0
  return ((Date.parse(typical_pip.p50) - Date.parse(first_pip.p50)) / DAY_MS) * rate_per_day
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
