import { describe, expect, it } from 'vitest'
import { traitsInWords } from './traits'

describe('traits in words', () => {
  it('name the form of each', () => {
    const traits = [
      { name: 'Desert Ghost', form: 'visual' },
      { name: 'Puzzle', form: 'one copy' },
      { name: 'Cypress', form: 'possible' },
    ]
    expect(traitsInWords({ hatch_year: 2019, traits })).toBe(
      'hatched 2019, Desert Ghost, 1 copy of Puzzle, possibly Cypress',
    )
  })

  it('are nothing for an animal of which nothing is known', () => {
    expect(traitsInWords({ hatch_year: null, traits: [] })).toBe('')
  })
})
