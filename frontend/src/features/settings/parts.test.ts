import { expect, it } from 'vitest'
import { addressOf, foundParts, PARTS } from '@/shared/settings/parts'

it.each([
  ['backups', '/settings/backups'],
  ['messengers', '/settings/alarms'],
  ['dents.1', '/settings/numbers#dents.1'],
  ['Causes of dents', '/settings/numbers#Causes%20of%20dents'],
])('the old mark %s leads to %s', (mark, address) => {
  expect(addressOf(mark)).toBe(address)
})

it.each([
  ['passphrase', ['People and sign-ins']],
  ['e-mail', ['Alarm notifications']],
  ['COPY house', []],
  ['', PARTS.map(({ name }) => name)],
])('what is found of %s', (sought, names) => {
  expect(foundParts(PARTS, sought).map(({ name }) => name)).toEqual(names)
})
