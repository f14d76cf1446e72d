import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { markup, words } from '@/shared/markup.testing'
import { BoxWater } from './BoxWater'

const water = (changes: Partial<Schemas['BoxWaterResponse']> = {}, left = {}) =>
  ({
    medium: 'perlite',
    closing: 'film with a cracked corner',
    full_g: 100,
    reference_g: 1180,
    left: {
      water_g: 54,
      share: 0.54,
      share_low: 0.51,
      share_high: 0.56,
      loss_g_day: 1.8,
      loss_low_g_day: 1.5,
      loss_high_g_day: 2.0,
      top_up_soon: {
        early: '2026-06-16T00:00:00',
        middle: '2026-06-17T00:00:00',
        late: '2026-06-19T00:00:00',
      },
      dry: { early: '2026-06-28T00:00:00', middle: '2026-07-01T00:00:00', late: null },
      weighings: 4,
      ...left,
    },
    add: null,
    opened_at: null,
    air: null,
    cabinet_humidity: 0.64,
    learned_from: 0,
    last_weighed_g: 1134,
    last_weighed_at: null,
    ...changes,
  }) as Schemas['BoxWaterResponse']
const said = (told: Schemas['BoxWaterResponse']) => words(<BoxWater box="26-04" water={told} />)

describe('the water of a box', () => {
  it('says what is left, how surely, and when it runs short', () => {
    const told = said(water())
    expect(told).toContain('54 % of its water left, about 54 g; likely between 51 and 56 %')
    expect(told).toContain('Losing about 1.8 g a day (1.5 to 2.0).')
    expect(told).toContain('Half gone about 17 Jun (16 Jun to 19 Jun).')
    expect(told).toContain('Dry about 1 Jul (28 Jun or much later).')
    expect(told).toContain('By 4 weighings; cabinet at 64 % humidity.')
  })

  it('says when it does not run short in time', () => {
    const never = { early: null, middle: null, late: null }
    expect(said(water({}, { dry: never }))).toContain('Dry: not before this clutch is out.')
  })

  it('says what it rests on while nobody weighs, and what others taught', () => {
    const told = said(water({ learned_from: 3, cabinet_humidity: null }, { weighings: 1 }))
    expect(told).toContain('By physics: film with a cracked corner')
    expect(told).toContain('humidity is not measured')
    expect(told).toContain('learned from 3 other boxes closed so')
  })

  it('says that nobody knows where the water was not measured', () => {
    expect(said(water({ left: null }))).toContain('nobody can say what is left')
  })

  it('draws the level with its band', () => {
    expect(markup(<BoxWater box="26-04" water={water()} />)).toContain('aria-label="54 % left"')
  })

  it('advises airing only where oxygen is likely short', () => {
    const air = { share: 0.16, low: 0.12, high: 0.19, advise_airing: true, may_need_airing: false }
    expect(said(water({ air }))).toContain('oxygen likely about 16 % (12 to 19), a rough estimate')
    expect(said(water({ air }))).toContain('Open the lid for a minute')
    const enough = { ...air, share: 0.2, advise_airing: false }
    expect(said(water({ air: enough }))).toContain('Enough.')
  })
})
