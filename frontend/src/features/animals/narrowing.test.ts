import { describe, expect, it } from 'vitest'
import { type Animal, type Around, inWords, narrowingOf, standingsOf } from './narrowing'

const animal = (id: number, more: Partial<Animal> = {}): Animal =>
  ({
    id,
    role: 'dam',
    name: `Dam ${id}`,
    code: null,
    traits: [],
    departure: null,
    ...more,
  }) as Animal

const dam = (id: number, more: object) => ({
  dam: id,
  name: `Dam ${id}`,
  laying: false,
  pairings: [],
  signs: [],
  forecast: null,
  preparations: [],
  clutches: [],
  ...more,
})

const AROUND = {
  season: {
    as_of: '2026-03-01T12:00:00Z',
    dams: [
      dam(1, { preparations: [{ due: false }, { due: true }] }),
      dam(2, { preparations: [{ due: false }] }),
      dam(3, { clutches: [{ code: '26-01' }], pairings: [{ until: '2026-01-01T00:00:00Z' }] }),
      dam(4, { pairings: [{ until: null }] }),
    ],
  },
  after: [{ dam: 3, flags: ['Dam 3 has taken nothing.'] }],
  codes: new Set(['26-01']),
} as unknown as Around

describe('where animals stand', () => {
  const animals = [1, 2, 3, 4].map((id) => animal(id))
  const standings = standingsOf([...animals, animal(5, { retired: true })], AROUND)

  it('is told in the order in which it calls for somebody', () => {
    expect(standings.get(3)).toEqual(['look', 'after', 'eggs'])
    expect(inWords(standings.get(3) ?? [])).toBe('look at her, after laying, eggs in a box')
  })

  it('takes a lay day as near once something is to be prepared for it', () => {
    expect(standings.get(1)).toEqual(['lays'])
    expect(standings.get(2)).toEqual([])
  })

  it('knows who is with a mate now, and who breeds no more', () => {
    expect(standings.get(4)).toEqual(['mate'])
    expect(standings.get(5)).toEqual(['retired'])
  })

  it('orders those first that need somebody, and the retired last', () => {
    const many = [
      animal(5, { retired: true }),
      ...animals,
      ...Array.from({ length: 9 }, (_, i) => animal(10 + i)),
    ]
    const asked = narrowingOf(standingsOf(many, AROUND))
    const sorted = asked.orders?.find(({ value }) => value === 'needs')?.sort(many)
    expect(sorted?.map(({ id }) => id).slice(0, 3)).toEqual([3, 1, 4])
    expect(sorted?.at(-1)?.id).toBe(5)
  })
})
