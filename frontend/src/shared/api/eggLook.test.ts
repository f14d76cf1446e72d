import { describe, expect, it } from 'vitest'
import type { Schemas } from './client'
import { asLook, asSmallLook } from './eggLook'

const egg = (changes: Partial<Schemas['EggResponse']>) =>
  asLook({
    number: 3,
    x: 0.5,
    y: 0.5,
    slug: false,
    shells: [],
    clump: null,
    grade: 0,
    excess: 0,
    events: [],
    signs: {},
    standing: 'sound',
    pipped_at: null,
    removed_at: null,
    ...changes,
  } as Schemas['EggResponse'])

describe('an egg of the house as it is drawn', () => {
  it('carries what was last seen of it', () => {
    expect(egg({ signs: { mould: 'patch', wet: 'weeping', colour: 'odd' } })).toMatchObject({
      mould: 'patch',
      wet: true,
      colour: 'odd',
    })
    expect(egg({ signs: { mould: 'none', wet: 'dry' } })).not.toHaveProperty('mould')
    expect(egg({ events: ['supported'] }).supported).toBe(true)
  })

  it('wears its standing, and its fate when it has one', () => {
    expect(egg({ standing: 'failing' }).standing).toBe('failing')
    expect(egg({ standing: null })).not.toHaveProperty('standing')
    expect(egg({ pipped_at: '2026-06-14T12:00:00Z' }).fate).toBe('pipped')
    expect(egg({ removed_at: '2026-06-14T12:00:00Z' }).fate).toBe('removed')
  })

  it('is drawn from the little a list knows', () => {
    const small = {
      number: 1,
      x: 0,
      y: 0,
      slug: false,
      shells: [] as Schemas['Shell'][],
      grade: 1,
      early: true,
    }
    const told = { ...small, pipped: false, removed: true, standing: 'watch', mould: 'spot' }
    expect(asSmallLook(told as Schemas['SmallEggResponse'])).toMatchObject({
      fate: 'removed',
      standing: 'watch',
      mould: 'spot',
    })
  })
})
