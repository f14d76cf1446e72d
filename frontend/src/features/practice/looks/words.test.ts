import { describe, expect, it } from 'vitest'
import type { Case, Told } from '../queries'
import { boxOf, chanceTold, earlierOf, lookOf, pipsOf, signsOf } from './words'

const egg: Case = {
  egg: 3,
  day: 34,
  share: 0.57,
  shell: 'window',
  grade: 2,
  mould: 'patch',
  smell: 'off',
  wet: 'dry',
  colour: 'white',
  feel: 'firm',
  hangs: false,
  pipped_hours: null,
  first_pip_hours: null,
  box: {
    medium: 'perlite',
    closing: 'loose lid',
    lid: 'none',
    feels: 'dry',
    short_g: 46.2,
    mean_temperature_c: 31.3,
    neighbours: [2, 1, 0],
  },
  earlier: [
    { day: 0, grade: 0, vessels: 'strong', mould: 'none', smell: 'none' },
    { day: 20, grade: 0, vessels: null, mould: 'none', smell: 'none' },
  ],
}

describe('a case in words', () => {
  it('tells what eyes, hand and nose find, and what its box shows', () => {
    expect(Object.fromEntries(signsOf(egg))).toMatchObject({
      Dents: 'clear dents',
      Mould: 'a patch',
      Smell: 'off',
    })
    expect(signsOf({ ...egg, hangs: true }).at(-1)?.[1]).toContain('over its rim')
    expect(Object.fromEntries(boxOf(egg))).toMatchObject({
      Neighbours: '2 of 3 dented',
      Lid: 'no water under it',
      'On the scale': '46 g short',
      Developed: '57\u00a0%',
    })
    expect(earlierOf(egg)).toEqual(['Day 0: strong vessels', 'Day 20: nothing to note'])
  })

  it('tells of pips only where there were some', () => {
    expect(pipsOf(egg)).toBeNull()
    expect(pipsOf({ ...egg, first_pip_hours: 44 })).toContain('This one is closed')
    expect(pipsOf({ ...egg, first_pip_hours: 44, pipped_hours: 1 })).toContain('Pipped 1 hour ago')
  })

  it('draws what eyes see, and nothing that only the torch shows', () => {
    expect(lookOf(egg)).toEqual({
      number: 3,
      grade: 2,
      shells: ['window'],
      wet: false,
      colour: 'white',
      mould: 'patch',
    })
    expect(lookOf({ ...egg, pipped_hours: 5 }).fate).toBe('pipped')
  })

  it('holds the learner\u2019s chance against Sandboa\u2019s and the truth', () => {
    const told = { judged: { chance_percent: 80 }, alive: false, opinion: { alive: 0.999 } }
    expect(chanceTold(told as Told)).toBe(
      'You said 80\u00a0%, Sandboa would have said over 99\u00a0%. It was dead.',
    )
  })
})
