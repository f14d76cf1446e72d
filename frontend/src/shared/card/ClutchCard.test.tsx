import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { markup, words } from '@/shared/markup.testing'
import { BoxLabel, ClutchCard } from './ClutchCard'

const clutch = {
  code: '26-04',
  count: '6-1',
  laid_at: '2026-05-19T18:00:00',
  forecast: {
    typical_pip: {
      p10: '2026-07-14T12:00:00',
      p25: '2026-07-16T12:00:00',
      p50: '2026-07-18T12:00:00',
      p75: '2026-07-20T12:00:00',
      p90: '2026-07-23T12:00:00',
    },
  },
  card: {
    parents: 'Yarrow × Flint',
    lines: [
      { name: 'Place', text: 'North, lower, 31.5 °C' },
      { name: 'Set up', text: '100 g dry, 100 g water' },
    ],
    egg_notes: '2 window, vessels weak; 4 slug',
    keeping: 'perlite',
  },
} as unknown as Schemas['ClutchResponse']

const label = {
  code: '26-04',
  count: '6-1',
  parents: 'Yarrow × Flint',
  laid_at: '2026-05-19T18:00:00',
  pips: {
    p10: '2026-07-14T12:00:00',
    p25: '2026-07-16T12:00:00',
    p50: '2026-07-18T12:00:00',
    p75: '2026-07-20T12:00:00',
    p90: '2026-07-23T12:00:00',
  },
  keeping: 'perlite',
}

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
      '100 g dry, 100 g water',
      'Eggs: 2 window, vessels weak; 4 slug',
    ]) {
      expect(said).toContain(part)
    }
  })

  it('says nothing of eggs where all are alike', () => {
    const alike = { ...clutch, card: { ...clutch.card, egg_notes: '' } }
    expect(words(<ClutchCard clutch={alike} />)).not.toContain('Eggs:')
  })

  it('opens the page by its code', () => {
    for (const part of [
      <ClutchCard key="c" clutch={clutch} />,
      <BoxLabel key="l" label={label} />,
    ]) {
      expect(markup(part)).toContain('src="/api/clutches/26-04/qr.svg" alt="Opens 26-04"')
    }
  })

  it('promises no date where none can be told', () => {
    const unknown = { ...clutch, forecast: null }
    expect(words(<ClutchCard clutch={unknown} />)).not.toContain('pips')
    expect(words(<BoxLabel label={{ ...label, pips: null }} />)).not.toContain('pips')
  })
})
