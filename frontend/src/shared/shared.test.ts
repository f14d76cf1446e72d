import { describe, expect, it } from 'vitest'
import { dayRange, fromInputMoment, inputMoment } from './dates'
import { exposureRuns, type Forecast, momentOf, type Piece, pipDensity } from './forecast/scale'
import {
  checkGrams,
  developed,
  difference,
  fromCelsius,
  notANumber,
  temperature,
  temperatureRange,
  toCelsius,
  typedGrams,
  typedNumber,
  typedTemperature,
} from './units'

/** A number and its unit stay on one line; here that is looked through. */
const plain = (text: string) => text.replaceAll('\u00a0', ' ')

describe('units', () => {
  it('turn back and forth without loss', () => {
    for (const celsius of [-20, 0, 31.5, 60]) {
      expect(toCelsius(fromCelsius(celsius, 'F'), 'F')).toBeCloseTo(celsius, 10)
    }
    expect(fromCelsius(31.5, 'F')).toBeCloseTo(88.7)
  })

  it('give no share that says nothing any more', () => {
    expect(plain(developed(0.416))).toBe('42 %')
    expect(plain(developed(1.25))).toBe('125 %')
    expect(plain(developed(3.4))).toBe('over 125 %')
  })

  it('never leave a number on one line and its unit on the next', () => {
    expect(temperature(31.5, 'F')).toBe('88.7\u00a0°F')
    expect(temperatureRange(25, 35, 'F')).toBe('77 to 95\u00a0°F')
  })

  it('scale a difference and do not shift it', () => {
    expect(plain(difference(0.5, 'C'))).toBe('0.5 °C')
    expect(plain(difference(0.5, 'F'))).toBe('0.9 °F')
    expect(plain(difference(0.25, 'F', 2))).toBe('0.45 °F')
  })

  it('take a temperature in the shown unit or in its own', () => {
    expect(typedTemperature('31,5', 'C')).toBe(31.5)
    expect(typedTemperature('88.7', 'F')).toBeCloseTo(31.5)
    expect(typedTemperature('88.7 °F', 'C')).toBeCloseTo(31.5)
    expect(typedTemperature('31.5c', 'F')).toBe(31.5)
    for (const text of ['', 'F', 'warm', '31K']) expect(typedTemperature(text, 'C')).toBeNaN()
  })

  it('read numbers with point or comma and nothing else', () => {
    expect(typedNumber(' 31,5 ')).toBe(31.5)
    for (const text of ['', '31.5C', 'NaN', 'Infinity', '1e3', '--', '1,00,000', '1.5.5', '1 23']) {
      expect(typedNumber(text)).toBeNaN()
      expect(typedGrams(text)).toBeNaN()
    }
  })

  it('read thousands as people write them', () => {
    for (const text of ['1,000.5', '1.000,5', '1 000,5', "1'000.5", '1\u202f000.5', '1000,5']) {
      expect(typedNumber(text)).toBe(1000.5)
    }
    for (const text of ['1,134', '1.134', '1 134', '1134']) expect(typedGrams(text)).toBe(1134)
    expect(typedGrams('0,134')).toBe(0.134)
    expect(typedGrams('45,5')).toBe(45.5)
    expect(typedGrams('-12')).toBe(-12)
    // What is no mass is asked about where it can be read two ways.
    expect(typedNumber('1,134')).toBeNaN()
    expect(notANumber('1,134', 'A number.')).toBe(
      '1,134 can be read two ways: write 1134 or 1.134.',
    )
    expect(notANumber('much', 'A number.')).toBe('A number.')
  })

  it('say where grams are typed what cannot be', () => {
    expect(checkGrams('', [10, 50000])).toBe(true)
    expect(checkGrams('1,134', [10, 50000])).toBe(true)
    expect(checkGrams('1.1', [10, 50000])).toBe('1.1 g is outside 10 to 50,000 g.')
    expect(checkGrams('', [10, 50000], { needed: true })).toBe('Grams as a number, like 1134.')
  })
})

describe('dates', () => {
  it('are short and unambiguous', () => {
    expect(dayRange('2026-07-14T12:00', '2026-07-23T12:00')).toBe('14\u201323 Jul')
    expect(dayRange('2026-06-28T12:00', '2026-07-03T12:00')).toBe('28 Jun\u20133 Jul')
    expect(dayRange('2026-07-14T01:00', '2026-07-14T22:00')).toBe('14 Jul')
  })

  it('keep the moment through an input and carry an offset', () => {
    const sent = fromInputMoment(inputMoment('2026-03-12T14:05:00Z'))
    expect(sent).toMatch(/(Z|[+-]\d\d:\d\d)$/)
    expect(Date.parse(sent)).toBe(Date.parse('2026-03-12T14:05:00Z'))
  })
})

const forecast = {
  as_of: '2026-06-14T18:30:00Z',
  development: 0.5,
  rate_per_day: 0.0125,
  typical_pip: {
    p10: '2026-07-19T18:30:00Z',
    p25: '2026-07-22T18:30:00Z',
    p50: '2026-07-24T18:30:00Z',
    p75: '2026-07-27T18:30:00Z',
    p90: '2026-08-01T18:30:00Z',
  },
} as Forecast

describe('the ribbon', () => {
  it('draws the typical pip as wide to either side as its window is', () => {
    // Reached at 1.0, 40 days ahead: 5 days back to p10, 8 on to p90.
    const points = pipDensity(forecast, 0.6, 1.6, 801)
    const highest = points.reduce((a, b) => (a.density > b.density ? a : b))
    expect(highest.development).toBeCloseTo(1, 2)
    const at = (development: number) =>
      points.find((p) => p.development >= development)?.density ?? 0
    expect(at(1 - 5 * 0.0125)).toBeCloseTo(Math.exp(-(1.2816 ** 2) / 2), 1)
    expect(at(1 + 8 * 0.0125)).toBeCloseTo(Math.exp(-(1.2816 ** 2) / 2), 1)
    expect(momentOf(forecast, 1) - Date.parse(forecast.as_of)).toBe(40 * 86_400_000)
  })

  it('rules out what lies behind today until an egg has pipped', () => {
    const late = { ...forecast, as_of: '2026-07-22T18:30:00Z', development: 0.975 }
    expect(pipDensity(late, 0.6, 1.4)[0]?.development).toBe(0.975)
    expect(pipDensity({ ...late, pipped: 2 }, 0.6, 1.4)[0]?.development).toBeLessThan(0.95)
    expect(pipDensity({ ...late, typical_pip: null }, 0.6, 1.4)).toEqual([])
  })

  it('joins neighbours of one colour but never across a gap', () => {
    const piece = (start: number, exposure: Piece['exposure'], measured = true) =>
      ({ development_start: start, development_end: start + 0.1, exposure, measured }) as Piece
    const runs = exposureRuns([
      piece(0, 'fine'),
      piece(0.1, 'fine'),
      piece(0.2, 'cold'),
      piece(0.3, 'fine', false),
      piece(0.4, 'fine'),
    ])
    expect(runs.map((run) => run.colour)).toEqual(['mild', 'cold2', 'mild', 'mild'])
    expect(runs[0]).toMatchObject({ from: 0, to: 0.2 })
    expect(runs.map((run) => run.measured)).toEqual([true, true, false, true])
  })
})
