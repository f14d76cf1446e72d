import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { boxInWords, humidityInWords, sourceInWords } from './inWords'

const egg = (number: number, more = {}) => ({ number, grade: 0, early: false, ...more })
const box = {
  name: '26-04',
  species: null,
  clutches: [{ code: '26-04', dam: 'Yarrow', day: 26 }],
  eggs: [egg(1), egg(2, { early: true }), egg(3, { early: true }), egg(4, { pipped: true })],
  water_left: { share: 0.656, share_low: 0.4, share_high: 0.8 },
} as unknown as Schemas['BoxHereResponse']

describe('a box on its shelf in words', () => {
  it('names what the drawing shows', () => {
    expect(boxInWords(box)).toBe(
      'Box 26-04, Yarrow, day 26, 4 eggs, 2 early for their stage, 1 pipped, about 66 % of its water left',
    )
  })

  it('says nothing of water where nobody knows', () => {
    expect(boxInWords({ ...box, water_left: null })).not.toContain('water')
  })
})

describe('humidity', () => {
  it('is no number where the sensor is saturated', () => {
    expect(humidityInWords(0.961, 0.97)).toBe('96 % humidity')
    expect(humidityInWords(0.97, 0.97)).toBe('air saturated')
    expect(humidityInWords(0.99, undefined)).toBe('99 % humidity')
  })
})

describe('where a temperature comes from', () => {
  it('never calls an estimate measured', () => {
    expect(sourceInWords('shelf probe')).toBe('probe here')
    expect(sourceInWords('cabinet probe')).toBe('from the cabinet')
    expect(sourceInWords('set point')).toBe('set point only')
    expect(sourceInWords(null)).toBe('not known')
  })
})
