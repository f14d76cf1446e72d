// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest'
import { FORGOTTEN_AFTER_MS, heldMoment, holdMoment, takeMoment } from './moment'

const MORNING = '2026-06-12T08:00:00+02:00'

beforeEach(() => sessionStorage.clear())

describe('the moment things are entered for', () => {
  it('is now until another is held, and now again', () => {
    expect(takeMoment()).toBeNull()
    holdMoment(MORNING)
    expect([takeMoment(), takeMoment()]).toEqual([MORNING, MORNING])
    holdMoment(null)
    expect(heldMoment()).toBeNull()
  })

  it('is forgotten an hour after it was last used', () => {
    holdMoment(MORNING, 0)
    expect(heldMoment(FORGOTTEN_AFTER_MS)).toBe(MORNING)
    expect(heldMoment(FORGOTTEN_AFTER_MS + 1)).toBeNull()
  })
})
