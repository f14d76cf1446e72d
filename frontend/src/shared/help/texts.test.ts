import { expect, test } from 'vitest'
import { PLACES } from '@/shared/places'
import { HELP } from './texts'

test('every place explains itself, and nothing else does', () => {
  expect(Object.keys(HELP).sort()).toEqual(PLACES.map(({ to }) => to).sort())
})

test('an explanation is short: it is read standing', () => {
  for (const { about, lines } of Object.values(HELP)) {
    expect(about.length).toBeLessThan(90)
    expect(lines.length).toBeLessThanOrEqual(3)
    for (const line of lines) expect(line.length).toBeLessThan(130)
  }
})
