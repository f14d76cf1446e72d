import { describe, expect, it } from 'vitest'
import {
  completed,
  type Typed,
  typedCount,
  typedDay,
  typedHatched,
  typedPip,
  writesMonthFirst,
} from './keystrokes'

/** How many keys are pressed until the field goes on by itself, or all of them and one more. */
function keys(text: string, read: (typed: string) => Typed): number {
  for (let length = 1; length <= text.length; length++) {
    const typed = read(text.slice(0, length))
    if (typed.done) {
      expect(typed.told, `${text} was cut short`).toBe(read(text).told)
      return length
    }
  }
  return text.length + 1
}

describe('a day of laying', () => {
  const of = (text: string) => typedDay(text, 2019, false)
  it('is told by as few digits as tell it', () => {
    expect(of('126')).toEqual({ text: '126', told: '2019-06-12', done: true })
    expect(of('12')).toEqual({ text: '12', told: '2019-02-01', done: false })
    expect(of('96')).toEqual({ text: '96', told: '2019-06-09', done: true })
    expect(of('1206').told).toBe('2019-06-12')
    expect(of('311')).toEqual({ text: '311', told: '2019-01-31', done: false })
    expect(of('3110')).toEqual({ text: '3110', told: '2019-10-31', done: true })
  })
  it('may be written out, with its own year', () => {
    expect(of('12.6').told).toBe('2019-06-12')
    expect(of('12.6.17').told).toBe('2017-06-12')
    expect(of('2017-06-12').told).toBe('2017-06-12')
  })
  it('has the month first where people write it so', () => {
    expect(typedDay('612', 2019, true)).toEqual({ text: '612', told: '2019-06-12', done: true })
    expect(typedDay('6/12/18', 2019, true).told).toBe('2018-06-12')
  })
  it('is none for what is no day', () => {
    for (const text of ['', '1', '322', '31.2', 'June', '12.13', '2019-13-01', '00'])
      expect(of(text).told, text).toBeNull()
  })
})

describe('a count', () => {
  const of = (text: string) => typedCount(text, 20)
  it('needs no hyphen where nothing lays so many eggs', () => {
    expect(of('72')).toEqual({ text: '7-2', told: '7-2', done: true })
    expect(of('7-2')).toEqual({ text: '7-2', told: '7-2', done: true })
    expect(of('7/2').text).toBe('7-2')
    expect(of('60')).toEqual({ text: '6-0', told: '6-0', done: true })
    expect(of('102')).toEqual({ text: '10-2', told: '10-2', done: true })
  })
  it('waits where more may come', () => {
    expect(of('7')).toEqual({ text: '7', told: '7', done: false })
    expect(of('10')).toEqual({ text: '10', told: '10', done: false })
    expect(of('12-1')).toEqual({ text: '12-1', told: '12-1', done: false })
    expect(of('7-')).toEqual({ text: '7-', told: null, done: false })
  })
  it('has no more slugs than eggs', () => {
    expect(of('2-7').told).toBeNull()
    expect(of('x').told).toBeNull()
  })
})

describe('how many hatched', () => {
  it('goes on once no other digit fits', () => {
    expect(typedHatched('5', '7-2')).toEqual({ text: '5', told: '5', done: true })
    expect(typedHatched('1', '14-2')).toEqual({ text: '1', told: '1', done: false })
    expect(typedHatched('6', '7-2').told).toBeNull()
  })
})

describe('the first pip', () => {
  const of = (text: string) => typedPip(text, '2019-06-12', false)
  it('is days after laying, or the day of a month', () => {
    expect(of('58')).toEqual({ text: '58', told: '2019-08-09', done: true })
    expect(of('9').told).toBe('2019-08-09')
    expect(of('12')).toEqual({ text: '12', told: '2019-08-12', done: true })
    expect(of('30').told).toBe('2019-07-30')
    expect(of('105').told).toBe('2019-09-25')
    expect(of('9.8').told).toBe('2019-08-09')
    expect(typedPip('3.1', '2019-11-05', false).told).toBe('2020-01-03')
  })
  it('is none without a day of laying', () => {
    expect(typedPip('58', null, false).told).toBeNull()
    expect(of('35').told).toBeNull()
  })
})

describe('a name', () => {
  const names = ['Sorrel', 'Sage', 'Tansy']
  it('is the first that begins so and was not named this season', () => {
    expect(completed('s', names, new Set())).toBe('Sorrel')
    expect(completed('S', names, new Set(['sorrel']))).toBe('Sage')
    expect(completed('so', names, new Set(['sorrel']))).toBe('Sorrel')
    expect(completed('x', names, new Set())).toBe('')
    expect(completed('', names, new Set())).toBe('')
  })
})

it('knows where the month comes first', () => {
  expect(writesMonthFirst('en-US')).toBe(true)
  expect(writesMonthFirst('de-DE')).toBe(false)
  expect(writesMonthFirst('sv-SE')).toBe(false)
})

describe('the keys of a line', () => {
  /** A letter and Tab for a name, Tab alone for a sire who is offered. */
  const NAMED = 2
  const OFFERED = 1
  const cards: [string, string, string, string, number][] = [
    ['126', '72', '5', '58', NAMED],
    ['96', '60', '', '61', NAMED],
    ['305', '81', '7', '09', NAMED],
    ['164', '93', '4', '57', NAMED],
    ['207', '50', '4', '12', NAMED],
    ['266', '112', '9', '60', OFFERED],
  ]
  it.each(cards)('are at most twelve: %s %s %s %s', (laid, count, hatched, pip, sire) => {
    const day = typedDay(laid, 2019, false)
    const eggs = typedCount(count, 20)
    const pressed =
      NAMED +
      sire +
      keys(laid, (typed) => typedDay(typed, 2019, false)) +
      keys(count, (typed) => typedCount(typed, 20)) +
      keys(hatched, (typed) => typedHatched(typed, eggs.told)) +
      keys(pip, (typed) => typedPip(typed, day.told, false))
    expect(pressed).toBeLessThanOrEqual(12)
  })
})
