import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { byDay } from './PhotosByDay'
import { pushWords, signed } from './words'

describe('an egg in words', () => {
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
