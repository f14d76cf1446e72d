import { describe, expect, it } from 'vitest'
import type { KeptBox, KeptEgg } from '../queries'
import { boxWords, choiceWords, keptLook, worthWords } from './words'

const egg = { number: 1, grade: 1, mould: 'none', wet: 'dry', colour: 'white' } as KeptEgg

describe('a kept season in words', () => {
  it('tells of a box what was seen of it, and no more', () => {
    const shut = { lid: 'edges', feels: null, smell: null, short_g: null } as KeptBox
    expect(boxWords(shut)).toBe('lid: edges')
    const seen = { lid: 'none', feels: 'dry', smell: 'off', short_g: 45.6 } as KeptBox
    expect(boxWords(seen)).toBe('no water under the lid, medium dry, 46\u00a0g short, smells off')
    expect(boxWords({ ...seen, smell: 'none', short_g: -8 })).toContain('8\u00a0g over')
    expect(boxWords({ ...seen, short_g: 0.4 })).toContain('weighs as at set-up')
  })

  it('tells what a choice was worth', () => {
    expect(choiceWords('pour', 'Box 2', 3)).toBe('Box 2: water added 3 times')
    expect(choiceWords('mend', null, 1)).toBe('the cabinet seen to once')
    expect([worthWords(2), worthWords(-1), worthWords(0)]).toEqual([
      '2 more hatched',
      '1 fewer hatched',
      'no egg more or less',
    ])
  })

  it('draws an egg as it was seen last', () => {
    expect(keptLook(egg)).toEqual({ number: 1, grade: 1, wet: false, colour: 'white' })
    expect(keptLook({ ...egg, out: true, pipped: true }).fate).toBe('out')
    expect(keptLook({ ...egg, removed: true }).fate).toBe('removed')
    expect(keptLook({ ...egg, pipped: true, mould: 'furry' })).toMatchObject({
      fate: 'pipped',
      mould: 'furry',
    })
  })
})
