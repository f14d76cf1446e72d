import { describe, expect, it } from 'vitest'
import type { Schemas } from '../api/client'
import { methodOf, valuesOfMethod } from './MethodFields'

const standard: Schemas['Method'] = {
  name: 'Standard',
  medium: 'vermiculite',
  ratio: 1,
  contact: 'bedded in a hollow',
  closing: 'lid with 1-2 pin holes',
  temperature_c: 31.5,
  visits: 'every 7 days',
  mould: 'leave unless it comes away freely',
  cutting: 'after the first pip',
  set_day: null,
  last_days: 'leave as is',
  clump: 'keep the clump',
  tub: 'clean at once',
  dam: 'eggs taken',
}

describe('a method in its form', () => {
  it('comes out as it went in, in either unit', () => {
    for (const unit of ['C', 'F'] as const) {
      expect(methodOf(valuesOfMethod(standard, unit), unit)).toEqual(standard)
    }
  })

  it('shows the temperature in the unit of the keeper', () => {
    expect(valuesOfMethod(standard, 'F').temperature_c).toBe('88.7')
  })

  it('leaves empty what has no number', () => {
    const values = { ...valuesOfMethod(standard, 'C'), ratio: ' ', set_day: '57' }
    expect(methodOf(values, 'C')).toMatchObject({ ratio: null, set_day: 57 })
  })

  it('takes a decimal comma', () => {
    const values = { ...valuesOfMethod(standard, 'C'), temperature_c: '30,5', ratio: '0,8' }
    expect(methodOf(values, 'C')).toMatchObject({ temperature_c: 30.5, ratio: 0.8 })
  })
})
