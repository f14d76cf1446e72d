import { describe, expect, it } from 'vitest'
import { placesFound } from './placesFound'

const names = (sought: string, runs = true) => placesFound(sought, runs).map(({ name }) => name)

describe('places that are found', () => {
  it('are those whose words begin as what is sought, and parts of Settings that hold it', () => {
    expect(names('lay')).toEqual(['Lay day'])
    expect(names('day lay')).toEqual(['Lay day'])
    expect(names('passphrase')).toEqual(['People and sign-ins'])
  })

  it('are none for nothing, and none of what a helper may not see', () => {
    expect(names('  ')).toEqual([])
    expect(names('passphrase', false)).toEqual([])
  })
})
