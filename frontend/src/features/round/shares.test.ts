import { describe, expect, it } from 'vitest'
import { isOthers, type Share } from './shares'

const north: Share = { cabinet: 'North', name: 'Rowan', mine: true }
const south: Share = { cabinet: 'South', name: 'Linden', mine: false }
const left = (shares: Share[]) =>
  ['North', 'South', 'West'].filter((cabinet) => isOthers(shares)({ cabinet }))

describe('a shared round', () => {
  it('leaves nothing to others while nobody took anything', () => {
    expect(left([])).toEqual([])
  })

  it('leaves to them what they took', () => {
    expect(left([south])).toEqual(['South'])
  })

  it('leaves to them all but mine once I took some', () => {
    expect(left([north, south])).toEqual(['South', 'West'])
    expect(left([north])).toEqual(['South', 'West'])
  })
})
