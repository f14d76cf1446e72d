import { expect, test } from 'vitest'
import { isUnderWay, narrowingOf, stageOf } from './narrowing'
import type { HatchingClutch } from './queries'

const clutch = (more: Partial<HatchingClutch>): HatchingClutch =>
  ({
    code: '26-01',
    finished_at: null,
    maternal: false,
    first_pipped_at: null,
    closed: [1],
    ...more,
  }) as HatchingClutch

const PIPPED = '2026-06-01T12:00:00Z'

test('a clutch is as far as its eggs are', () => {
  expect(stageOf(clutch({}))).toBe('waiting')
  expect(stageOf(clutch({ first_pipped_at: PIPPED }))).toBe('pipping')
  expect(stageOf(clutch({ first_pipped_at: PIPPED, closed: [] }))).toBe('out')
  expect(stageOf(clutch({ first_pipped_at: PIPPED, finished_at: PIPPED }))).toBe('closed')
  expect(stageOf(clutch({ maternal: true }))).toBe('dam')
})

test('those under way are never folded, and few are not narrowed', () => {
  expect([clutch({}), clutch({ first_pipped_at: PIPPED })].map(isUnderWay)).toEqual([false, true])
  expect(narrowingOf([clutch({})]).facets).toEqual([])
  expect(narrowingOf(Array.from({ length: 5 }, () => clutch({}))).facets).toHaveLength(2)
})
