import { describe, expect, it } from 'vitest'
import { countsOf, type Facet, narrowed } from './narrowing'

type Snake = { name: string; cabinet: string; needs: string[] }

const SNAKES: Snake[] = [
  { name: 'Sorrel', cabinet: 'North', needs: ['water', 'candle'] },
  { name: 'Costmary', cabinet: 'North', needs: ['water'] },
  { name: 'Flint', cabinet: 'South', needs: [] },
]
const NEEDS: Facet<Snake> = {
  key: 'needs',
  legend: 'Needs',
  valuesOf: ({ needs }) => needs,
  words: (value) => value.toUpperCase(),
}
const CABINET: Facet<Snake> = {
  key: 'cabinet',
  legend: 'Cabinet',
  valuesOf: ({ cabinet }) => [cabinet],
}
const FACETS = [NEEDS, CABINET]
const names = (snakes: Snake[]) => snakes.map(({ name }) => name)

describe('a list narrowed', () => {
  it('is whole where nothing was chosen', () => {
    expect(narrowed(SNAKES, FACETS, {})).toEqual(SNAKES)
  })

  it('holds what has all that was chosen and all words that were typed', () => {
    expect(names(narrowed(SNAKES, FACETS, { needs: 'water', cabinet: 'North' }))).toEqual([
      'Sorrel',
      'Costmary',
    ])
    const typed = narrowed(
      SNAKES,
      FACETS,
      { needs: 'water' },
      ' Nor  SOR',
      (snake) => `${snake.name} ${snake.cabinet}`,
    )
    expect(names(typed)).toEqual(['Sorrel'])
  })

  it('is empty for a value that nothing has', () => {
    expect(narrowed(SNAKES, FACETS, { needs: 'air' })).toEqual([])
  })
})

describe('the counts of a facet', () => {
  it('tell what a tap would leave, in words, in their order', () => {
    expect(countsOf(SNAKES, NEEDS, SNAKES, ['candle', 'water', 'air'])).toEqual([
      { value: 'candle', label: 'CANDLE', count: 1 },
      { value: 'water', label: 'WATER', count: 2 },
    ])
  })

  it('keep a value that nothing is left of, so that nothing moves under a thumb', () => {
    expect(countsOf(SNAKES, CABINET, narrowed(SNAKES, [NEEDS], { needs: 'water' }))).toEqual([
      { value: 'North', label: 'North', count: 2 },
      { value: 'South', label: 'South', count: 0 },
    ])
  })
})
