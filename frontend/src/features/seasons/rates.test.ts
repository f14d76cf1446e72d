import { expect, it } from 'vitest'
import { changeWords, linkOf, rateWords, whiskersOf } from './rates'

const S = '\u00a0'
const rate = { k: 18, n: 20, clutches: 3, share: 0.9, low: 0.74, high: 0.98, effective_n: 14 }

it('tells what changed while eggs developed', () => {
  const spells = [
    { from_day: 0, name: 'perlite' },
    { from_day: 21, name: 'vermiculite' },
  ]
  const change = { code: '26-04', numbers: [1, 2], spells, counted: 'vermiculite' }
  expect(changeWords(change)).toBe('26-04, eggs 1, 2: perlite; from day 21 vermiculite')
  expect(changeWords({ ...change, numbers: [5] })).toContain('26-04, egg 5:')
})

it('tells counts, rate and interval together, never a rate alone', () => {
  expect(rateWords(rate)).toBe(`18 of 20, 90${S}% (74 to 98)`)
  expect(rateWords({ ...rate, k: 0, n: 0, share: null })).toBe('nothing counted yet')
})

it('draws a group with the ends of its interval', () => {
  const groups = [
    { name: 'perlite', rate, drawn: 0.86 },
    { name: 'none', rate: { ...rate, share: null }, drawn: null },
  ]
  const [whisker, ...others] = whiskersOf(groups)
  expect(others).toEqual([])
  expect(whisker?.name).toBe('perlite')
  expect(whisker?.rate).toBeCloseTo(90)
  expect(whisker?.span[0]).toBeCloseTo(74)
  expect(whisker?.span[1]).toBeCloseTo(98)
})

it('leads from a sentence to where more of it stands', () => {
  expect(linkOf('losses 25-03')).toBe('/losses/25-03')
  expect(linkOf('losses')).toBe('/losses')
  expect(linkOf('hatch rates medium')).toBe('#by-medium')
  expect(linkOf('hatch rates')).toBe('#rates')
  expect(linkOf('slugs')).toBe('#slugs')
})
