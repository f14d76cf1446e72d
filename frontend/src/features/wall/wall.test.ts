import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { cabinetsNow, nextPips, toDo } from './wall'

type TodayBox = Schemas['TodayBoxResponse']

const due = (kind: string, urgency: string) => ({ kind, urgency, since: '', text: '', eggs: [] })
const box = (name: string, more: Partial<Record<keyof TodayBox, unknown>>): TodayBox =>
  ({
    name,
    cabinet: 'North',
    shelf: 'top',
    temperature_c: 31,
    set_point_c: 31.5,
    due: [],
    clutches: [],
    ...more,
  }) as TodayBox
const clutch = (code: string, p10: string) => ({ code, first_pip: { p10, p90: `${p10}T` } })

describe('the wall', () => {
  it('tells boxes to open, the pressing ones first, each reason once', () => {
    const told = toDo([
      box('a', { due: [due('rhythm', 'none')] }),
      box('b', {}),
      box('c', { due: [due('dents', 'today'), due('water', 'today'), due('dents', 'none')] }),
    ])
    expect(told.map(({ box: name }) => name)).toEqual(['c', 'a'])
    expect(told[0]).toMatchObject({ what: 'dented early, water', pressing: true })
    expect(told[1]).toMatchObject({ what: 'visit', pressing: false, stands: 'North, top' })
  })

  it('tells each cabinet from its coldest box to its warmest', () => {
    const boxes = [31, 30.2, 31.6].map((temperature_c, n) => box(`${n}`, { temperature_c }))
    expect(cabinetsNow(boxes)).toEqual([{ name: 'North', setTo: 31.5, low: 30.2, high: 31.6 }])
  })

  it('tells the next pips by date, a clutch in two boxes once', () => {
    const boxes = [
      box('a', { clutches: [clutch('26-02', '2026-07-01')] }),
      box('b', {
        clutches: [
          clutch('26-02', '2026-07-01'),
          clutch('26-01', '2026-06-20'),
          { code: 'x', first_pip: null },
        ],
      }),
    ]
    expect(nextPips(boxes).map(({ code }) => code)).toEqual(['26-01', '26-02'])
  })
})
