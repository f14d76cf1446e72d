import { expect, test } from 'vitest'
import { counted } from './counted'

test('one is told as one', () => {
  expect(counted(1, 'egg')).toBe('1 egg')
  expect(counted(0, 'egg')).toBe('0 eggs')
  expect(counted(2, 'clutch', 'clutches')).toBe('2 clutches')
  expect(counted(1200, 'reading')).toBe('1,200 readings')
})
