import { describe, expect, it } from 'vitest'
import { askedAgainMs, follow, isOwn, noteOwn } from './followed'

describe('a page that follows the house', () => {
  it('asks seldom while it is told, and each minute while it is not', () => {
    follow(true)
    expect(askedAgainMs()).toBe(600_000)
    follow(false)
    expect(askedAgainMs()).toBe(60_000)
  })

  it('knows its own latest act, and takes none of before for it', () => {
    noteOwn(7)
    noteOwn(5)
    expect([isOwn(7), isOwn(5), isOwn(8)]).toEqual([true, false, false])
  })
})
