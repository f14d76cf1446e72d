import { describe, expect, it } from 'vitest'
import { lasted, placeOf, spanOf, ticksOf } from './hours'
import { byNeed } from './need'
import type { HatchingClutch, HatchingEgg } from './queries'

const NOW = '2026-06-14T18:00:00Z'
const window = (p90: string) => ({ p10: NOW, p25: NOW, p50: NOW, p75: p90, p90 })

function clutch(changes: Partial<HatchingClutch> = {}): HatchingClutch {
  return {
    first_pipped_at: '2026-06-13T06:00:00Z',
    last_pip: window('2026-06-16T18:00:00Z'),
    eggs: [],
    ...changes,
  } as unknown as HatchingClutch
}

describe('the strip of hours', () => {
  it('begins before the first pip and reaches to the likely last one', () => {
    const span = spanOf(clutch(), NOW)
    expect(new Date(span.from).toISOString()).toBe('2026-06-13T00:00:00.000Z')
    expect(new Date(span.to).toISOString()).toBe('2026-06-16T18:00:00.000Z')
    expect(placeOf('2026-06-13T00:00:00Z', span)).toBe(0)
    expect(placeOf('2026-06-20T00:00:00Z', span)).toBe(100)
    expect(ticksOf(span)).toEqual([0, 12, 24, 36, 48, 60, 72, 84])
    expect(ticksOf(span, 4)).toEqual([0, 24, 48, 72])
  })

  it('shows a day ahead when nothing is known, and three at the most', () => {
    const alone = spanOf(clutch({ first_pipped_at: null, last_pip: null }), NOW)
    expect((alone.to - alone.now) / 3_600_000).toBe(24)
    const far = spanOf(clutch({ last_pip: window('2026-07-14T18:00:00Z') }), NOW)
    expect((far.to - far.now) / 3_600_000).toBe(72)
  })
})

it('says how long something lasted', () => {
  expect(lasted('2026-06-14T09:00:00Z', NOW)).toBe('9\u00a0h')
  expect(lasted('2026-06-12T14:00:00Z', NOW)).toBe('52\u00a0h')
  expect(lasted('2026-06-11T14:00:00Z', NOW)).toBe('3\u00a0days 4\u00a0h')
  expect(lasted('2026-06-11T18:00:00Z', NOW)).toBe('3\u00a0days')
})

it('puts the egg that needs somebody first', () => {
  const egg = (number: number, kind: string, pipped_at: string | null = null) =>
    ({ egg: { number, pipped_at }, advice: { kind } }) as unknown as HatchingEgg
  const eggs = [egg(1, 'out', NOW), egg(2, 'wait', NOW), egg(3, 'widen', NOW), egg(4, 'wait')]
  expect(byNeed([...eggs, egg(5, 'consider a window')]).map((e) => e.egg.number)).toEqual([
    5, 3, 4, 2, 1,
  ])
})
