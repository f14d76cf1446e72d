import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { markup, words } from '@/shared/markup.testing'
import { Pips } from './Pips'

const egg = (number: number, more = {}) => ({ number, slug: false, pipped_at: null, ...more })
const clutch = {
  code: '26-01',
  finished_at: null,
  forecast: null,
  eggs: [egg(1, { pipped_at: '2026-06-13T08:00:00' }), egg(2), egg(3, { slug: true }), egg(4)],
} as unknown as Schemas['ClutchTold']

describe('pips', () => {
  it('are offered for the eggs that can still pip: no slug, none that has', () => {
    const offered = [...markup(<Pips clutch={clutch} />).matchAll(/<option value="(\d)"/g)]
    expect(offered.map((m) => m[1])).toEqual(['2', '4'])
    expect(words(<Pips clutch={clutch} />)).toContain('Egg 1 pipped 13 Jun 08:00.')
  })

  it('end only when the keeper says so, told how many stayed closed', () => {
    expect(words(<Pips clutch={clutch} />)).toContain('No more will pip: 2 stayed closed')
    const all = clutch.eggs.map((e) => (e.slug ? e : { ...e, pipped_at: '2026-06-13T08:00:00' }))
    expect(words(<Pips clutch={{ ...clutch, eggs: all }} />)).toContain('All have pipped: done')
  })

  it('cannot be recorded for a clutch that is done', () => {
    const done = { ...clutch, finished_at: '2026-06-14T09:00:00' }
    expect(words(<Pips clutch={done} />)).toContain('Done since 14 Jun 09:00')
    expect(markup(<Pips clutch={done} />)).not.toContain('<button')
  })

  it('of nobody yet end nothing', () => {
    const closed = { ...clutch, eggs: [egg(1), egg(2)] } as Schemas['ClutchTold']
    expect(words(<Pips clutch={closed} />)).not.toContain('No more will pip')
  })
})
