import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { markup, words } from '@/shared/markup.testing'
import { SeasonStrip } from './SeasonStrip'

const at = (month: number, day: number) => new Date(2026, month - 1, day, 12).toISOString()
const window = { p10: at(7, 1), p25: at(7, 3), p50: at(7, 5), p75: at(7, 7), p90: at(7, 9) }
const quiet = {
  dam: 1,
  name: 'Sorrel',
  laying: false,
  forecast: null,
  pairings: [],
  signs: [],
  clutches: [],
} as unknown as Schemas['DamLaySeasonResponse']
const pairing = { id: 1, sire: 'Flint', start: at(3, 1), until: at(3, 3), locks: [at(3, 2)] }
const strip = (dam: object, clutches: object[] = []) => (
  <SeasonStrip
    season={
      { as_of: at(6, 14), dams: [{ ...quiet, ...dam }] } as unknown as Schemas['LaySeasonResponse']
    }
    clutches={clutches as Schemas['ClutchInBoxResponse'][]}
  />
)

describe('the season of a dam', () => {
  it('is said in one sentence, whichever comes next', () => {
    const forecast = { window }
    const clutch = { code: '26-04', laid_at: at(5, 19) }
    expect(words(strip({ pairings: [pairing] }))).toContain('last with Flint 1 Mar')
    expect(words(strip({ pairings: [{ ...pairing, until: null }] }))).toContain(
      'with Flint since 1 Mar',
    )
    expect(words(strip({ forecast, pairings: [pairing] }))).toContain('lays 1–9 Jul')
    expect(words(strip({ forecast: { window: null } }))).toContain('overdue: feel for eggs')
    expect(words(strip({ laying: true, forecast }))).toContain('laying now')
    expect(words(strip({ clutches: [clutch] }))).toContain('laid 26-04 on 19 May')
    expect(
      words(strip({ clutches: [clutch] }, [{ code: '26-04', typical_pip: window }])),
    ).toContain('26-04, pips 1–9 Jul')
  })

  it('draws every lock and tells signs apart by their form', () => {
    const own = (dam: object) => markup(strip(dam)).split('<ul')[1] ?? ''
    const lines = (svg: string) => svg.match(/stroke-width="2.5"/g)?.length ?? 0
    expect(lines(own({ pairings: [{ ...pairing, locks: [at(3, 2), at(3, 3)] }] }))).toBe(2)
    const forms = (['ovulation', 'pre-lay shed', 'off food'] as const).map((sign) =>
      own({ signs: [{ sign, seen_at: at(5, 1) }] }).replace(/[\d.]+/g, '#'),
    )
    expect(new Set(forms).size).toBe(3)
  })
})
