import { describe, expect, it } from 'vitest'
import { type Heard, kindOf, numbersIn, sensorsIn, type Value, valueWords } from './values'

const value = (path: string, more: Partial<Value> = {}): Value => ({
  path,
  text: '31.4',
  seems: null,
  unit: null,
  named: null,
  ...more,
})
const heard = (...values: Value[]): Heard => ({
  topic: 'hub/shelf',
  device: null,
  name: 'hub/shelf',
  at: null,
  count: 1,
  kept: false,
  values,
  weakness: null,
  refused: null,
  revision: 'r',
})

describe('what is heard', () => {
  it('says a value with the unit it seems to have, or was named with', () => {
    expect(valueWords(value('t', { seems: 'temperature', unit: 'c' }))).toBe('31.4\u00a0°C')
    expect(valueWords(value('t', { text: '31.4 °C', seems: 'temperature', unit: 'c' }))).toBe(
      '31.4 °C',
    )
    const named = { unit: 'f' as const, probe: 1, probe_name: 'Lower' }
    expect(valueWords(value('t', { unit: 'c', named }))).toBe('31.4\u00a0°F')
    expect(valueWords(value('battery', { text: '9', seems: 'battery' }))).toBe('9\u00a0%')
    expect(valueWords(value('t', { text: '' }))).toBe('nothing yet')
  })

  it('tells what is stored from what may be a sensor, and from all else', () => {
    const named = { unit: 'c' as const, probe: 1, probe_name: 'Lower' }
    expect(kindOf(heard(value('t', { named })))).toBe('stored')
    expect(kindOf(heard(value('t', { seems: 'humidity', unit: 'percent' })))).toBe('sensor')
    expect(kindOf(heard(value('', { unit: 'c' })))).toBe('sensor')
    expect(kindOf(heard(value('brightness', { text: '80' })))).toBe('other')
  })

  it('puts values of one part of a message together', () => {
    const parts = sensorsIn([value('a.t'), value('a.h'), value('b.t'), value('battery')])
    expect(parts.map(({ part, values }) => [part, values.map((v) => v.path)])).toEqual([
      ['a', ['a.t', 'a.h']],
      ['b', ['b.t']],
      ['', ['battery']],
    ])
  })

  it('offers numbers only', () => {
    const told = heard(value('t'), value('state', { text: 'on' }), value('none', { text: '' }))
    expect(numbersIn(told).map((v) => v.path)).toEqual(['t'])
  })
})
