import { expect, test } from 'vitest'
import { inHeldOrder } from './useHeldOrder'

const itself = (name: string) => name

test('what was sorted first stays where it is', () => {
  expect(inHeldOrder(['e', 'a', 'c'], itself, ['a', 'c', 'e'])).toEqual(['a', 'c', 'e'])
})

test('new ones come last in their own order, and gone ones leave no hole', () => {
  expect(inHeldOrder(['n', 'e', 'a', 'm'], itself, ['a', 'c', 'e'])).toEqual(['a', 'e', 'n', 'm'])
})

test('at first it is the order that was given', () => {
  expect(inHeldOrder(['c', 'a', 'b'], itself, [])).toEqual(['c', 'a', 'b'])
})
