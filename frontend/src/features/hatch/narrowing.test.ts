import { expect, test } from 'vitest'
import { onlyWaits, stageOf } from './narrowing'
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

test('a clutch that only waits is folded; one overdue, or whose egg calls, never is', () => {
  const first_pip = { p50: PIPPED } as HatchingClutch['first_pip']
  const egg = (kind: string) => [{ advice: { kind } }] as HatchingClutch['eggs']
  const waiting = clutch({ first_pip, eggs: egg('wait') })
  expect(onlyWaits(waiting)).toBe(true)
  expect(onlyWaits({ ...waiting, first_pip: null })).toBe(false)
  expect(onlyWaits({ ...waiting, eggs: egg('consider a window') })).toBe(false)
  expect(onlyWaits({ ...waiting, first_pipped_at: PIPPED })).toBe(false)
})
