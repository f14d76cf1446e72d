import { describe, expect, it } from 'vitest'
import { Problem } from '@/shared/api/client'
import { EMPTY, originOf, originValues, refusedField } from './values'

const SAID = { ...EMPTY, laidFrom: '2026-06-01T08:00', laidUntil: '2026-06-03T20:00' }

describe('where eggs come from', () => {
  it('tells only what belongs to the way it is known', () => {
    const told = originOf(
      { ...SAID, stage: 'disc only', before: '30', arrivedAt: SAID.laidUntil },
      'C',
    )
    expect(told.laid_from).not.toBeNull()
    expect([told.stage, told.before_c, told.arrived_at, told.laid_at]).toEqual([
      null,
      null,
      null,
      null,
    ])
    const torch = originOf(
      { ...SAID, kind: 'from elsewhere', by: 'torch', stage: 'disc only', before: '86F' },
      'C',
    )
    expect([torch.laid_from, torch.laid_until, torch.stage]).toEqual([null, null, 'disc only'])
    expect(torch.before_c).toBeCloseTo(30)
  })

  it('is the same form again after it was said', () => {
    const origin = { ...originOf(SAID, 'C'), words: [] } as unknown as Parameters<
      typeof originValues
    >[0]
    expect(originValues(origin, 'C')).toEqual(SAID)
    expect(originValues(null, 'C')).toEqual(EMPTY)
  })

  it('says a refusal at a field that shows', () => {
    const at = (field: string) => new Problem('no', 422, [{ field, reason: 'no' }])
    expect(refusedField(at('origin.laid_until'), SAID)).toBe('laidUntil')
    expect(refusedField(at('laid_at'), SAID)).toBe('laidFrom')
    expect(refusedField(at('laid_at'), { ...SAID, by: 'torch' })).toBe('stageSeenAt')
  })
})
