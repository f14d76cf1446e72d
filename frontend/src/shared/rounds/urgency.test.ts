import { describe, expect, it } from 'vitest'
import { URGENCY_WORDS, urgencyRank } from './urgency'

describe('urgency', () => {
  it('rises from watch to now, and an unknown word is none', () => {
    const ranks = ['none', 'watch', 'today', 'urgent'].map(urgencyRank)
    expect(ranks).toEqual([0, 1, 2, 3])
    expect(urgencyRank('later')).toBe(0)
  })

  it('has a word for whatever calls for attention', () => {
    expect(Object.keys(URGENCY_WORDS)).toEqual(['watch', 'today', 'urgent'])
  })
})
