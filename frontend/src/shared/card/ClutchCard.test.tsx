import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { markup, words } from '@/shared/markup.testing'
import { BoxLabel, ClutchCard } from './ClutchCard'

const egg = (number: number, more = {}) => ({
  number,
  slug: false,
  shell: 'smooth',
  events: [],
  torchlight: { vessels: 'strong' },
  ...more,
})
const clutch = {
  code: '26-04',
  count: '6-1',
  dam: 'Yarrow',
  sire: 'Flint',
  laid_at: '2026-05-19T18:00:00',
  maternal: false,
  forecast: {
    typical_pip: {
      p10: '2026-07-14T12:00:00',
      p25: '2026-07-16T12:00:00',
      p50: '2026-07-18T12:00:00',
      p75: '2026-07-20T12:00:00',
      p90: '2026-07-23T12:00:00',
    },
  },
  box: {
    cabinet: 'North',
    shelf: 'lower',
    set_point_c: 31.5,
    medium: 'perlite saturated under a grid',
    closing: 'film with one corner cracked',
    dry_mass_g: 100,
    water_g: 100,
    set_up_mass_g: null,
  },
  method: {
    contact: 'on a grid',
    visits: 'every 7 days',
    cutting: 'on a set day',
    set_day: 57,
  },
  eggs: [
    egg(1),
    egg(2, { shell: 'window', torchlight: { vessels: 'weak' } }),
    egg(3, { events: ['separated', 'turned'] }),
    egg(4, { slug: true, torchlight: { vessels: null } }),
  ],
} as unknown as Schemas['ClutchTold']

describe('the card of a clutch', () => {
  it('holds what one must know with the box in hand', () => {
    const said = words(<ClutchCard clutch={clutch} />)
    for (const part of [
      '26-04',
      '6-1',
      'Yarrow × Flint',
      'laid 19 May 2026',
      '14–23 Jul',
      'most likely 18 Jul',
      'North, lower, 31.5 °C',
      'perlite saturated under a grid, on a grid',
      'film with one corner cracked',
      '100 g dry, 100 g water',
      'on a set day (57)',
    ]) {
      expect(said).toContain(part)
    }
  })

  it('speaks the degrees of the keeper', () => {
    expect(words(<ClutchCard clutch={clutch} />, 'F')).toContain('88.7 °F')
  })

  it('names the eggs that are not like the others, and only those', () => {
    const said = words(<ClutchCard clutch={clutch} />)
    expect(said).toContain('Eggs: 2 window, vessels weak; 3 turned; 4 slug')
    const alike = { ...clutch, eggs: clutch.eggs.slice(0, 1) }
    expect(words(<ClutchCard clutch={alike} />)).not.toContain('Eggs:')
  })

  it('opens the page by its code', () => {
    for (const part of [
      <ClutchCard key="c" clutch={clutch} />,
      <BoxLabel key="l" clutch={clutch} />,
    ]) {
      expect(markup(part)).toContain('src="/api/clutches/26-04/qr.svg" alt="Opens 26-04"')
    }
  })

  it('is shorter where the dam keeps her eggs, and honest where nothing was weighed', () => {
    const kept = words(<ClutchCard clutch={{ ...clutch, maternal: true }} />)
    expect(kept).toContain('Dam keeps')
    expect(kept).not.toContain('perlite')
    expect(words(<BoxLabel clutch={{ ...clutch, maternal: true }} />)).toContain('dam keeps')
    const unweighed = { ...clutch, box: { ...clutch.box, dry_mass_g: null, water_g: null } }
    expect(words(<ClutchCard clutch={unweighed} />)).toContain('not weighed')
  })

  it('promises no date where none can be told', () => {
    const unknown = { ...clutch, forecast: null, sire: null }
    expect(words(<ClutchCard clutch={unknown} />)).not.toContain('pips')
    expect(words(<BoxLabel clutch={unknown} />)).not.toContain('pips')
  })
})
