import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { enteredLate, lastUndoable, pageOf, visitsOf } from './entries'

const entry = (act: number, kind: string, undone = false): Schemas['LogResponse'] => ({
  act,
  kind,
  undone,
  by: null,
  summary: kind,
  recorded_at: `2026-06-${10 + Math.floor(act / 2)}T18:00:00Z`,
  at: null,
  visit: null,
  correctable: false,
  clutch: null,
})

describe('the log', () => {
  it('takes back the newest act that still stands', () => {
    expect(lastUndoable([entry(5, 'undo'), entry(4, 'grade', true), entry(3, 'grade')])?.act).toBe(
      3,
    )
    expect(lastUndoable([entry(6, 'redo'), entry(5, 'undo', true)])?.act).toBe(6)
    expect(lastUndoable([])).toBeUndefined()
  })

  it('knows the visits: looks and waterings, each moment once, none undone', () => {
    const log = [
      entry(7, 'readings'),
      entry(5, 'grade'),
      entry(4, 'grade'),
      entry(3, 'water'),
      entry(2, 'grade', true),
      entry(1, 'lay'),
    ]
    expect(visitsOf(log)).toEqual(['2026-06-12T18:00:00Z', '2026-06-11T18:00:00Z'])
  })

  it('leads to the page where what several forms made is corrected', () => {
    const of = { ...entry(5, 'fate'), clutch: '26-01' }
    expect(pageOf(of)).toBe('/hatch/26-01')
    expect(pageOf({ ...of, correctable: true })).toBeNull()
    expect(pageOf({ ...of, undone: true })).toBeNull()
    expect(pageOf({ ...of, kind: 'weigh' })).toBeNull()
    expect(pageOf({ ...of, kind: 'visit', visit: 7 })).toBe('/visits/7')
  })

  it('knows what was entered late, and when that happened', () => {
    const late = { ...entry(5, 'grade'), at: '2026-06-09T07:00:00Z' }
    expect(enteredLate(late)).toBe(true)
    expect(visitsOf([late])).toEqual(['2026-06-09T07:00:00Z'])
    expect(enteredLate({ ...late, at: '2026-06-12T17:50:00Z' })).toBe(false)
    expect(enteredLate(entry(5, 'grade'))).toBe(false)
  })
})
