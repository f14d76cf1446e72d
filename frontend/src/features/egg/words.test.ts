import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { byDay } from './PhotosByDay'
import { chanceWords, pushWords, signed } from './words'

describe('an egg in words', () => {
  it('says a chance in words first, and never more than it knows', () => {
    expect(chanceWords(0.999)).toBe('almost surely alive (over 99 %)')
    expect(chanceWords(0.97)).toBe('almost surely alive (97\u00a0%)')
    expect(chanceWords(0.86)).toBe('very likely alive (86\u00a0%)')
    expect(chanceWords(0.62)).toBe('likely alive (62\u00a0%)')
    expect(chanceWords(0.5)).toBe('alive or not, about even (50\u00a0%)')
    expect(chanceWords(0.21)).toBe('more likely lost than alive (21\u00a0% alive)')
    expect(chanceWords(0.001)).toBe('hardly alive (under 1 %)')
  })

  it('says how strongly a sign pushes, and which way', () => {
    expect(pushWords(2)).toBe('strongly for it')
    expect(pushWords(-0.9)).toBe('clearly against it')
    expect(pushWords(-0.24)).toBe('a little against it')
    expect(pushWords(0)).toBe('says nothing')
    expect(signed(-0.56)).toBe('\u22120.6')
    expect(signed(3.5)).toBe('+3.5')
  })
})

describe('photos', () => {
  it('stand by day, the days in order', () => {
    const photo = (taken_at: string) => ({ taken_at }) as Schemas['PhotoResponse']
    const days = byDay([
      photo('2026-06-10T10:00:00Z'),
      photo('2026-05-26T10:00:00Z'),
      photo('2026-06-10T09:00:00Z'),
    ])
    expect(days.map(([day, photos]) => [day, photos.length])).toEqual([
      ['26 May', 1],
      ['10 Jun', 2],
    ])
  })
})
