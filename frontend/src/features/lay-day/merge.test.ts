import { expect, test } from 'vitest'
import { merged } from './merge'
import type { Egg, State } from './steps'

const egg = (changed: Partial<Egg> = {}): Egg =>
  ({ x: 0.5, y: 0.5, slug: false, shells: [], events: [], looked: false, ...changed }) as Egg
const state = (changed: Partial<State> = {}): State =>
  ({ dam: 'Yarrow', laid_at: '2026-06-14T08:00:00Z', eggs: [egg(), egg()], ...changed }) as State

test('what only one device changed is taken from it, egg by egg', () => {
  const here = state({ dam_mass_g: 1240, eggs: [egg({ mass_g: 82 }), egg()] })
  const there = state({ lump: 'none', eggs: [egg(), egg({ vessels: 'weak', looked: true })] })
  const both = merged(state(), here, there)
  expect(both.clashes).toEqual([])
  expect(both.taken).toEqual(['the lump: none'])
  expect(both.state).toMatchObject({ dam_mass_g: 1240, lump: 'none' })
  expect(both.state.eggs.map((e) => [e.mass_g, e.vessels])).toEqual([
    [82, undefined],
    [undefined, 'weak'],
  ])
})

test('what both changed differently stays as typed here, and is told', () => {
  const both = merged(state(), state({ dam_mass_g: 1240 }), state({ dam_mass_g: 1310 }))
  expect(both.state.dam_mass_g).toBe(1240)
  expect(both.clashes).toEqual([
    { key: 'dam_mass_g', what: 'her weight', here: '1240', there: '1310' },
  ])
  const eggs = merged(
    state(),
    state({ eggs: [egg({ vessels: 'strong' }), egg()] }),
    state({ eggs: [egg({ vessels: 'weak' }), egg()] }),
  )
  expect(eggs.clashes).toEqual([
    { key: 'eggs', what: 'egg 1, vessels', here: 'strong', there: 'weak' },
  ])
})

test('another count is taken, unless both counted anew', () => {
  const three = [egg(), egg(), egg()]
  expect(merged(state(), state(), state({ eggs: three })).state.eggs).toHaveLength(3)
  const both = merged(state(), state({ eggs: [egg()] }), state({ eggs: three }))
  expect(both.state.eggs).toHaveLength(1)
  expect(both.clashes).toEqual([{ key: 'eggs', what: 'the number of eggs', here: '1', there: '3' }])
})

test('the same said twice is no clash', () => {
  const weighed = state({ dam_mass_g: 1240 })
  expect(merged(state(), weighed, weighed).clashes).toEqual([])
})
