import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { markup, words } from '@/shared/markup.testing'
import { Causes } from './Causes'
import { EvidenceList } from './EvidenceList'
import { ago, chancesAhead, numbersOf, STAGE } from './words'

const line = (
  key: string,
  words: string,
  push: number,
  more = {},
): Schemas['EvidenceResponse'] => ({
  key,
  words,
  log_ratio: push / 0.8,
  times: 1,
  push,
  seen_at: '2026-06-14T12:00:00Z',
  void: '',
  ...more,
})

const standing: Schemas['StandingResponse'] = {
  standing: 'failing',
  alive: 0.21,
  will_pip: 0.15,
  will_hatch: 0.14,
  log_odds: -1.3,
  prior: line('prior.weak', 'weak vessels on lay day', 1.1),
  evidence: [
    line('sign.dents.excess', 'dents ahead of its stage', -1.2, { times: 3, seen_at: null }),
    line('sign.smell.off', 'smells off', -0.56),
    line('sign.colour.white', 'clean white', 0.16),
    line('sign.feel.mushy', 'feels mushy', 0, { void: 'counts only from 90 % developed on' }),
  ],
}
const list = (
  <EvidenceList
    standing={standing}
    thresholds={{ sound: 0.85, watch: 0.5 }}
    dependence={0.8}
    closedEggs={31}
    taughtBy={{ 'sign.mould.spot': 12 }}
    asOf="2026-06-17T18:00:00Z"
  />
)

describe('the list of evidence', () => {
  it('says every sign with its push in words and in numbers, for and against', () => {
    const said = words(list)
    expect(said).toContain('Weak vessels on lay day')
    expect(said).toContain('Dents ahead of its stage × 3 ; clearly against it')
    expect(said).toContain('Smells off 14 Jun, 3 days ago; a little against it')
    expect(said).toContain('Clean white 14 Jun, 3 days ago; a little for it')
    expect(said).toContain('\u22121.2')
    expect(said).toContain('+0.2')
  })

  it('keeps what does not count, with the reason', () => {
    expect(words(list)).toContain(
      'Feels mushy 14 Jun, 3 days ago; counts only from 90 % developed on',
    )
  })

  it('draws what speaks for the egg to the right, against it to the left, by its size', () => {
    const bars = [...markup(list).matchAll(/width:([\d.]+)%;(left|right):50%/g)]
    expect(bars.map(([, , side]) => side)).toEqual(['left', 'right', 'right', 'left', 'left'])
    const [, dents, smell] = bars.map(([, width]) => Number(width))
    expect(dents).toBeGreaterThan(smell ?? 0)
  })

  it('says how old a look is, and what is still to come of the egg', () => {
    expect(ago('2026-06-14T12:00:00Z', '2026-06-14T20:00:00Z')).toBe('today')
    expect(ago('2026-06-14T12:00:00Z', '2026-06-15T13:00:00Z')).toBe('1 day ago')
    expect(chancesAhead(standing)).toBe('Chance to pip 15\u00a0%, to hatch 14\u00a0%.')
  })

  it('tells a number by what it rests on', () => {
    const [dents] = standing.evidence
    expect(numbersOf(dents as never, 0.8)).toBe('weight \u22121.5 × 0.8 × 3, here \u22121.2')
    expect(numbersOf(standing.prior, 0.8)).toBe('starts at +1.1')
    const stage = line(STAGE, 'eggs lost by this stage', -0.6, { log_ratio: 0.12 })
    expect(numbersOf(stage, 0.8)).toContain('12\u00a0% of living eggs die')
  })

  it('hides the rule until it is asked for', () => {
    expect(words(list)).toContain('Why? With the rule and its numbers')
    expect(words(list)).not.toContain('because signs lean on one another')
  })
})

describe('causes of early dents', () => {
  it('stand with their share, their reasons and the way to their numbers', () => {
    const told = (
      <Causes
        causes={[
          { cause: 'dry box', share: 0.93, reasons: ['+ 4 of 6 eggs are early'] },
          { cause: 'unknown', share: 0.07, reasons: [] },
        ]}
      />
    )
    expect(words(told)).toContain('93 % dry box + 4 of 6 eggs are early')
    expect(words(told)).toContain('7 % unknown')
    expect(markup(told)).toContain('/settings/numbers#Causes')
  })
})
