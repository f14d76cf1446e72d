import { describe, expect, it } from 'vitest'
import { words } from '@/shared/markup.testing'
import { inWords } from './DevelopmentRibbon'
import { ForecastWindows } from './ForecastWindows'
import { developmentOn, type Forecast, type Piece } from './scale'

const window = (middle: number, half: number) => {
  const at = (day: number) => new Date(Date.UTC(2026, 6, 1 + day, 12)).toISOString()
  return {
    p10: at(middle - 2 * half),
    p25: at(middle - half),
    p50: at(middle),
    p75: at(middle + half),
    p90: at(middle + 2 * half),
  }
}
const forecast = {
  as_of: '2026-06-14T12:00:00Z',
  day: 26.3,
  development: 0.45,
  fraction: 0.46,
  rate_per_day: 0.017,
  first_pip: window(14, 2),
  typical_pip: window(16, 2),
  last_pip: window(18, 2),
} as unknown as Forecast
const piece = (start: number, end: number, from: number, to: number) =>
  ({
    start: new Date(Date.UTC(2026, 5, start)).toISOString(),
    end: new Date(Date.UTC(2026, 5, end)).toISOString(),
    development_start: from,
    development_end: to,
  }) as Piece

describe('the table of windows', () => {
  it('has a line for what is forecast and none for what is not', () => {
    const said = words(<ForecastWindows forecast={forecast} />)
    expect(said).toContain('First pip 15 Jul 13–17 Jul 11–19 Jul')
    expect(said).toContain('Typical pip 17 Jul')
    expect(said).not.toContain('First shed')
    expect(said).not.toContain('Next pip')
  })
})

describe('the ribbon', () => {
  it('says heat, day and window to who cannot see it', () => {
    expect(inWords(forecast)).toBe(
      'Development ribbon: day 26, 46 percent developed, typical pip 17 Jul, most likely 13 Jul to 21 Jul',
    )
    const over = inWords({ ...forecast, typical_pip: null, fraction: 1.45 })
    expect(over).toContain('over 125 percent developed, no pip in sight')
  })

  it('puts a visit where its day fell in heat: cold days are short', () => {
    const pieces = [piece(1, 3, 0, 0.04), piece(3, 5, 0.04, 0.05), piece(5, 7, 0.05, 0.09)]
    const on = (day: number) => developmentOn(Date.UTC(2026, 5, day), forecast, pieces)
    expect(on(2)).toBeCloseTo(0.02)
    expect(on(4)).toBeCloseTo(0.045)
    expect(on(6) - on(5)).toBeCloseTo(0.02)
    // Before lay there was nothing.
    expect(developmentOn(Date.UTC(2026, 4, 20), forecast, pieces)).toBe(0)
  })

  it('goes on at the rate of today', () => {
    expect(developmentOn(Date.parse('2026-06-24T12:00:00Z'), forecast, [])).toBeCloseTo(0.62)
    expect(developmentOn(Date.parse('2026-06-10T12:00:00Z'), forecast, [])).toBe(0.45)
  })
})
