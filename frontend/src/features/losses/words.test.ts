import { expect, it } from 'vitest'
import type { LostEgg } from './queries'
import { bothWords, countWords, leadWords, stayWords, windowWords } from './words'

const S = '\u00a0'

it('says how sure it is in words first', () => {
  expect(leadWords('too dry', 0.91)).toBe(`very likely too dry (91${S}%)`)
  expect(leadWords('too dry', 0.55)).toBe(`likely too dry (55${S}%)`)
  expect(leadWords('too dry', 0.3)).toBe(`perhaps too dry (30${S}%)`)
  expect(leadWords('unknown', 0.7)).toBe('not known')
})

it('tells the window of the death, or nothing', () => {
  const egg = {
    died_from: '2026-05-03T08:00:00Z',
    died_by: '2026-05-09T08:00:00Z',
    died_from_share: 0.12,
    died_by_share: 0.3,
  } as LostEgg
  expect(windowWords(egg)).toBe(`Died between 12${S}% and 30${S}% developed, 3\u20139 May`)
  expect(windowWords({ ...egg, died_from: null })).toBe('')
})

it('tells what is known of where an egg lay', () => {
  const stay = {
    from_day: 0,
    from_at: '2026-05-03T08:00:00Z',
    box: '26-04 B',
    medium: 'perlite',
    closing: 'cracked corner',
    cabinet: 'North',
    shelf: 'lower',
    hatching: false,
  }
  expect(stayWords(stay)).toBe('box 26-04 B on perlite, cracked corner; North, lower')
  expect(stayWords({ ...stay, medium: null, closing: null, hatching: true })).toBe(
    'hatching box 26-04 B; North, lower',
  )
})

it('counts what hatched first', () => {
  const line = { fertile: 7, hatched: 5, waiting: 0, lost: [1, 2] }
  expect(countWords(line)).toBe('5 of 7 hatched, 2 lost')
  expect(countWords({ ...line, hatched: 3, waiting: 2 })).toBe(
    '3 of 7 hatched, 2 lost, 2 still waited for',
  )
})

it('tells causes that speak at once as two', () => {
  expect(bothWords(['too dry', 'too hot'])).toBe(
    'Two causes speak here at once: too dry and too hot. Either may have done it, or both.',
  )
})
