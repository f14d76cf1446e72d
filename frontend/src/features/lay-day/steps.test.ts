import { describe, expect, it } from 'vitest'
import {
  beside,
  type Egg,
  happened,
  movedOn,
  nextToLook,
  oneBoxLess,
  spread,
  withClump,
  withEvent,
} from './steps'

const eggs = (n: number): Egg[] =>
  Array.from({ length: n }, (_, i) => ({
    x: 0.1 * i,
    y: 0.5,
    slug: false,
    shells: [],
    events: [],
    looked: false,
    box: 0,
  }))
const groups = (of: Egg[]) => of.map((egg) => egg.clump ?? 0)

describe('clumps', () => {
  it('join one by one and whole groups with each other', () => {
    let all = withClump(eggs(6), 1, 2, true)
    all = withClump(all, 4, 5, true)
    expect(groups(all)).toEqual([1, 1, 0, 2, 2, 0])
    expect(groups(withClump(all, 2, 4, true))).toEqual([1, 1, 0, 1, 1, 0])
  })

  it('let go, and a group of one is none', () => {
    const three = withClump(withClump(eggs(3), 1, 2, true), 2, 3, true)
    expect(groups(withClump(three, 1, 3, false))).toEqual([1, 1, 0])
    const two = withClump(eggs(2), 1, 2, true)
    expect(groups(withClump(two, 1, 2, false))).toEqual([0, 0])
  })
})

describe('the order of work', () => {
  it('knows what comes before and after', () => {
    expect(beside(['prepare', 'dam', 'count'], 'dam', 1)).toBe('count')
    expect(beside(['prepare', 'dam', 'count'], 'prepare', -1)).toBeUndefined()
    expect(beside(['prepare', 'dam', 'count'], 'turning', 1)).toBe('prepare')
  })

  it('goes on at the first egg nobody has looked at', () => {
    const all = eggs(3)
    expect(nextToLook(all)).toBe(1)
    expect(nextToLook([{ ...eggs(1)[0], looked: true } as Egg, ...eggs(2)])).toBe(2)
    expect(nextToLook(all.map((egg) => ({ ...egg, looked: true })))).toBe(3)
  })

  it('notes an event once and takes it back', () => {
    const egg = eggs(1)[0] as Egg
    const turned = withEvent(withEvent(egg, 'turned', true, 'a'), 'turned', true, 'b')
    expect(turned.events).toEqual([{ kind: 'turned', at: 'b' }])
    expect(happened(withEvent(turned, 'turned', false, 'c'), 'turned')).toBe(false)
  })
})

describe('eggs over several boxes', () => {
  const boxes = (of: Egg[]) => of.map((egg) => egg.box)

  it('are shared out evenly, neighbours together', () => {
    expect(boxes(spread(eggs(9), 2))).toEqual([0, 0, 0, 0, 0, 1, 1, 1, 1])
    expect(boxes(spread(eggs(7), 3))).toEqual([0, 0, 0, 1, 1, 2, 2])
    expect(boxes(spread(eggs(2), 2))).toEqual([0, 1])
  })

  it('go on to the next box with a tap, from the last to the first', () => {
    const [egg] = eggs(1) as [Egg]
    expect(movedOn(egg, 3)).toBe(1)
    expect(movedOn({ ...egg, box: 2 }, 3)).toBe(0)
  })

  it('go into the first when their box is not taken, and later boxes move up', () => {
    const three = spread(eggs(6), 3)
    expect(boxes(oneBoxLess(three, 1))).toEqual([0, 0, 0, 0, 1, 1])
    expect(boxes(oneBoxLess(three, 2))).toEqual([0, 0, 1, 1, 0, 0])
  })
})
