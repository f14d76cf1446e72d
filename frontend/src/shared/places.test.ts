import { expect, it } from 'vitest'
import { isIn, PLACES, placeOf } from './places'

it.each([
  ['/', 'Today'],
  ['/clutches/26-04', 'Today'],
  ['/hatch/26-04', 'Hatch'],
  ['/hatchlings/7', 'Hatch'],
  ['/old-records/3', 'Animals'],
  ['/readings', 'Cabinets'],
  ['/heard', 'Settings'],
])('%s belongs to %s', (address, name) => {
  expect(placeOf(address).name).toBe(name)
})

it('one place at most is marked as the one that is open', () => {
  for (const address of ['/', '/hatchlings', '/old-records', '/heard', '/nowhere']) {
    expect(PLACES.filter((place) => isIn(place, address)).length).toBeLessThanOrEqual(1)
  }
})
