import { describe, expect, it } from 'vitest'
import { alarmInWords, byGravity } from './Alarms'
import { effectOf, FAULT_WORDS, type Fault, spanOf } from './faults'
import { inWords } from './Readiness'

const plain = (text: string) => text.replaceAll('\u00a0', ' ')
const fault: Fault = {
  kind: 'fan',
  start: '2026-06-08T04:10:00',
  end: '2026-06-10T07:20:00',
  probes: ['Lower'],
  probe_ids: [2],
  shelves: ['lower'],
  degree_hours: 131.6,
  largest_c: -3.25,
  delay_days: 0.62,
} as Fault

describe('what a fault did', () => {
  it('is told with its size, its heat and the days it cost', () => {
    expect(plain(effectOf(fault, 'C'))).toBe(
      'up to 3.3 °C below its usual, 132 degree-hours, pips 0.6 days later',
    )
  })

  it('has no zero to shift: a difference in °F is 1.8 times as large', () => {
    expect(plain(effectOf({ ...fault, largest_c: -2 }, 'F'))).toContain('up to 3.6 °F below')
  })

  it('knows both ways', () => {
    const warm = { ...fault, largest_c: 1.5, delay_days: -0.3 }
    expect(plain(effectOf(warm, 'C'))).toContain('1.5 °C above its usual')
    expect(plain(effectOf(warm, 'C'))).toContain('pips 0.3 days earlier')
  })

  it('leaves out what is nothing', () => {
    const silent = { ...fault, largest_c: 0, degree_hours: 0, delay_days: 0.01 }
    expect(plain(effectOf(silent, 'C'))).toBe('')
  })

  it('has a span, open while it lasts', () => {
    expect(spanOf(fault)).toBe('8 Jun 04:10 to 10 Jun 07:20')
    expect(spanOf({ ...fault, end: null })).toBe('since 8 Jun 04:10')
  })

  it('says where to look, whatever it is', () => {
    for (const { name, look } of Object.values(FAULT_WORDS)) {
      expect(name.length).toBeGreaterThan(5)
      expect(look).toMatch(/\.$/)
    }
  })
})

describe('a condition that fails', () => {
  it('is said with its number and its limit, in the unit of the keeper', () => {
    const condition = { requirement: 'daily swing', met: false, value: 1.6, limit: 1 } as const
    expect(plain(inWords({ ...condition, since: null }, 'C'))).toBe(
      "a day's swing of 1.6 °C (1.0 °C at most)",
    )
    expect(plain(inWords({ ...condition, since: null }, 'F'))).toBe(
      "a day's swing of 2.9 °F (1.8 °F at most)",
    )
  })

  it('is not a number where nothing was read', () => {
    const condition = { requirement: 'mean', met: false, value: null, limit: 0.5, since: null }
    expect(plain(inWords(condition as Parameters<typeof inWords>[0], 'C'))).toContain('no readings')
  })
})

describe('alarms', () => {
  const alarm = (severity: string, text: string) =>
    ({ severity, text, began_at: '2026-06-08T04:10:00' }) as Parameters<typeof alarmInWords>[0]

  it('stand with the gravest first, whichever came last', () => {
    const held = ['notice', 'alarm', 'emergency', 'alarm'].map((s, i) => alarm(s, `${i}`))
    expect(byGravity(held).map((a) => a.text)).toEqual(['2', '1', '3', '0'])
  })

  it('are sentences, asked or said', () => {
    expect(alarmInWords(alarm('alarm', 'North: does the fan turn?'))).toBe(
      'North: does the fan turn? Since 8 Jun 04:10.',
    )
    expect(plain(alarmInWords(alarm('alarm', 'Upper: up to 34.4 °C')))).toBe(
      'Upper: up to 34.4 °C. Since 8 Jun 04:10.',
    )
  })
})
