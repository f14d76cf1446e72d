import { expect, test } from 'vitest'
import type { QueuedPhoto, QueuedVisit } from './visit'
import { NOTHING, waitingOf } from './waiting'

const visit = (id: number, refused?: string) =>
  ({ id, visit: { code: '26-04' }, ...(refused && { refused }) }) as QueuedVisit
const photo = (id: number) => ({ id, egg: 4 }) as QueuedPhoto

test('a photo that goes while a visit comes is something new to deliver', () => {
  const before = waitingOf([], [photo(1)])
  const after = waitingOf([visit(1)], [])
  expect(after.waiting).toBe(before.waiting)
  expect(after.which).not.toBe(before.which)
})

test('what was refused waits for the keeper, not for the house', () => {
  const told = waitingOf([visit(1, 'egg 5 was removed'), visit(2)], [photo(1)])
  expect(told).toMatchObject({ waiting: 2, refused: 1, boxes: ['26-04'] })
  expect(told.which).toBe('visit 2, photo 1')
  expect(waitingOf([], [])).toEqual(NOTHING)
})
