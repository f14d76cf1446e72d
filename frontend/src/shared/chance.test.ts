import { describe, expect, it } from 'vitest'
import { chanceWords } from './chance'

describe('a chance that an egg lives', () => {
  it('is said in words first, and never more than it knows', () => {
    expect(chanceWords(0.999)).toBe('almost surely alive (over 99\u00a0%)')
    expect(chanceWords(0.97)).toBe('almost surely alive (97\u00a0%)')
    expect(chanceWords(0.86)).toBe('very likely alive (86\u00a0%)')
    expect(chanceWords(0.62)).toBe('likely alive (62\u00a0%)')
    expect(chanceWords(0.5)).toBe('alive or not, about even (50\u00a0%)')
    expect(chanceWords(0.21)).toBe('more likely lost than alive (21\u00a0% alive)')
    expect(chanceWords(0.001)).toBe('hardly alive (under 1\u00a0%)')
  })
})
