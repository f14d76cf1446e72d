import { describe, expect, it } from 'vitest'
import { titleOf } from '@/shared/climate/useLive'
import { inWords } from '../probes/HeldReadings'
import { around, DAY, dailySwings, HOUR, panned, serves, zoomed } from './traceView'

const limits = { from: 0, until: 60 * DAY }
const view = { from: 20 * DAY, until: 30 * DAY }

describe('the view of a climate trace', () => {
  it('is served by what was fetched around it until it leaves that', () => {
    const fetched = around(view)
    expect(serves(fetched, view)).toBe(true)
    expect(serves(fetched, panned(view, 0.9, limits))).toBe(true)
    expect(serves(fetched, panned(view, 1.1, limits))).toBe(false)
    expect(serves(fetched, zoomed(view, 0.3, limits))).toBe(false)
  })

  it('never pans further than half a screen beyond what there is', () => {
    expect(panned(view, 100, limits).from).toBe(55 * DAY)
    expect(panned(view, -100, limits).from).toBe(-5 * DAY)
  })

  it('zooms around its middle, down to an hour and up to all there is', () => {
    const near = zoomed(view, 0.5, limits)
    expect([near.from, near.until]).toEqual([22.5 * DAY, 27.5 * DAY])
    const nearest = zoomed(view, 1e-9, limits)
    expect(nearest.until - nearest.from).toBeCloseTo(HOUR, 3)
    const widest = zoomed(view, 1e9, limits)
    expect(widest.until - widest.from).toBeCloseTo(66 * DAY)
  })

  it('tells the swing of each day by its worst probe and skips days without readings', () => {
    const times = [0, 10, DAY, 2 * DAY]
    const low = [
      [31, 30.8, null, 31],
      [30, 30.5, null, 30],
    ]
    const high = [
      [31.2, 31.1, null, 31.1],
      [30.6, 31.5, null, 30],
    ]
    const told = dailySwings(times, low, high, (t) => Math.floor(t / DAY))
    expect(told.map((d) => [d.day, Number(d.swing.toFixed(2))])).toEqual([
      [0, 1.5],
      [2, 0.1],
    ])
  })
})

describe('alarms in the title', () => {
  it('counts what nobody has seen, and calls an emergency by its name', () => {
    expect(titleOf({ emergencies: 0, alarms: 0 })).toBe('Sandboa')
    expect(titleOf({ emergencies: 0, alarms: 2 })).toBe('(2) Sandboa')
    expect(titleOf({ emergencies: 1, alarms: 2 })).toBe('(3) EMERGENCY · Sandboa')
  })
})

describe('how far a clock is off', () => {
  it('is said in the unit that fits', () => {
    expect(inWords(-180 * 60)).toBe('−3 h')
    expect(inWords(40 * 60)).toBe('+40 min')
    expect(inWords(9000 * 86_400)).toBe('+9000 days')
  })
})
