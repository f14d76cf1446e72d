import { describe, expect, it } from 'vitest'
import { dotsOf } from '@/shared/charts/reliability'
import type { Group, Season } from './queries'
import {
  changeWords,
  expectedWords,
  linkOf,
  orders,
  rateWords,
  reliabilityWords,
  whiskersOf,
} from './rates'

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
    { name: 'perlite', rate, drawn: 0.86, like_for_like: null, together: [] },
    {
      name: 'none',
      rate: { ...rate, share: null },
      drawn: null,
      like_for_like: null,
      together: [],
    },
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

it('tells what to expect of a group with all else as usual', () => {
  const group = {
    name: 'perlite',
    rate,
    drawn: 0.86,
    like_for_like: { rate: 0.7, low: 0.5, high: 0.85 },
    together: [],
  }
  expect(expectedWords(group.like_for_like)).toBe('70\u00a0% (50 to 85)')
  expect(whiskersOf([group])[0]?.drawn).toBe(70)
})

it('says how few eggs a chart of chances rests on, and what is known of their lives', () => {
  const score = { eggs: 12, alive: null } as Season['standings'][number]
  expect(reliabilityWords(score)).toBe(
    '12 eggs are few: the bars say how few. Whether they lived that day no pip or opening tells.',
  )
  const bins = [{ eggs: 9, said: 0.9, came: 8, low: 0.6, high: 0.98 }]
  const told = { eggs: 9, came: 8, brier: 0.1, brier_of_always: 0.1, bins }
  expect(reliabilityWords({ ...score, eggs: 60, alive: told })).toBe(
    'Rings: alive that day, by 9 eggs whose pip or opening tells it; 8 were.',
  )
  const [dot] = dotsOf(bins)
  expect(dot).toMatchObject({ said: 90, low: 60, high: 98 })
  expect(dot?.came).toBeCloseTo(88.9, 1)
})

describe('many groups', () => {
  const group = (name: string, eggs: number, expected: number | null, share: number | null) =>
    ({ name, rate: { n: eggs, share }, like_for_like: null, drawn: expected }) as unknown as Group
  const groups = [
    group('Sorrel', 6, 0.9, 1),
    group('Tansy', 20, 0.7, 0.8),
    group('Yarrow', 8, null, 0.5),
  ]
  const by = (value: string) =>
    orders
      .find((order) => order.value === value)
      ?.sort(groups)
      .map(({ name }) => name)

  it('are ordered by their eggs, or by what to expect of them', () => {
    expect(by('most')).toEqual(['Tansy', 'Yarrow', 'Sorrel'])
    expect(by('least')).toEqual(['Yarrow', 'Tansy', 'Sorrel'])
    expect(by('name')).toEqual(['Sorrel', 'Tansy', 'Yarrow'])
  })
})
