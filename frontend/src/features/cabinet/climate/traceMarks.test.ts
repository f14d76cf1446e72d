import type uPlot from 'uplot'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Pen } from '@/shared/charts/pen'
import type { Fault } from '@/shared/climate/faults'
import { drawBeneath, drawOver, type Marks } from './traceMarks'
import { DAY } from './traceView'

type Drawn = { ink: string; x: number; y: number; width: number; height: number }

/** A plot of 1000 by 300 px over ten days, 25 to 35 degrees, that notes what is painted on it. */
function plotted(times: number[]) {
  const rects: Drawn[] = []
  const words: string[] = []
  const ends: number[] = []
  const ctx = {
    fillStyle: '',
    save() {},
    restore() {},
    beginPath() {},
    rect() {},
    clip() {},
    measureText: (text: string) => ({ width: text.length * 7 }),
    fillText(text: string, x: number, y: number) {
      words.push(`${text} @${Math.round(y)}`)
      ends.push(x + text.length * 7)
    },
    fillRect(x: number, y: number, width: number, height: number) {
      rects.push({ ink: this.fillStyle, x, y, width, height })
    },
  }
  const plot = {
    ctx,
    data: [times],
    bbox: { left: 0, top: 0, width: 1000, height: 300 },
    valToPos: (value: number, scale: string) =>
      scale === 'x' ? (value / (10 * DAY)) * 1000 : ((35 - value) / 10) * 300,
  }
  return { plot: plot as unknown as uPlot, rects, words, ends }
}

const at = (day: number) => new Date(day * DAY * 1000).toISOString()
const fault = (kind: Fault['kind'], from: number, until: number | null) =>
  ({ kind, start: at(from), end: until === null ? null : at(until) }) as Fault
const times = Array.from({ length: 11 }, (_, i) => i * DAY)
const marks: Marks = {
  faults: [],
  events: [],
  setPoint: times.map(() => 31.5),
  fine: 0.5,
  swings: [],
  rules: { swing_good_up_to_c: 1, swing_watch_up_to_c: 2 } as Marks['rules'],
}
const pen: Pen = { ink: (name) => name, letters: 13, font: '13px sans', axis: {} }

beforeEach(() => {
  vi.stubGlobal('devicePixelRatio', 1)
})

describe('beneath the lines of a trace', () => {
  it('lies the fine band, a piece for every set point', () => {
    const { plot, rects } = plotted(times)
    drawBeneath(plot, { ...marks, setPoint: times.map((_, i) => (i < 4 ? 30 : 32)) }, pen)
    const bands = rects.filter((r) => r.ink === 'faint')
    expect(bands.map((b) => [b.x, b.width])).toEqual([
      [0, 400],
      [400, 600],
    ])
    // Half a degree up and down, at 30 px a degree.
    expect(bands.map((b) => Math.round(b.height))).toEqual([30, 30])
    expect(bands[0]?.y).toBeGreaterThan(bands[1]?.y ?? 0)
  })

  it('is nothing where no set point was known', () => {
    const { plot, rects } = plotted(times)
    drawBeneath(plot, { ...marks, setPoint: times.map(() => null) }, pen)
    expect(rects).toEqual([])
  })

  it('lie the spans of what the eggs felt, not of what only a probe did', () => {
    const { plot, rects } = plotted(times)
    const faults = [fault('fan', 2, 4), fault('stuck', 5, 6), fault('power cut', 9, null)]
    drawBeneath(plot, { ...marks, faults }, pen)
    expect(rects.filter((r) => r.ink === 'vessel-soft').map((r) => [r.x, r.width])).toEqual([
      [200, 200],
      [900, 100],
    ])
  })
})

describe('over the lines of a trace', () => {
  it('stand the names of faults, in rows where they would run into each other', () => {
    const { plot, words } = plotted(times)
    const faults = [fault('fan', 2, 4), fault('stuck', 2.2, 3), fault('door', 8, 8.1)]
    drawOver(plot, { ...marks, faults }, pen)
    expect(words).toEqual(['Shelves drifted apart @18', 'Probe stuck @35', 'Door left open @18'])
  })

  it('are whole at the right edge, and still in rows', () => {
    const { plot, words, ends } = plotted(times)
    const faults = [fault('fan', 9.5, 9.6), fault('stuck', 9.9, null)]
    drawOver(plot, { ...marks, faults }, pen)
    expect(Math.max(...ends)).toBeLessThanOrEqual(1000)
    expect(words).toEqual(['Shelves drifted apart @18', 'Probe stuck @35'])
  })

  it('is no name for the warmth of eggs, which is no fault, nor for what is out of sight', () => {
    const { plot, words } = plotted(times)
    drawOver(plot, { ...marks, faults: [fault('egg heat', 1, 9), fault('fan', 12, 13)] }, pen)
    expect(words).toEqual([])
  })

  it('stands taller the more a day swings', () => {
    const { plot, rects } = plotted(times)
    const swings = [0.6, 1.4, 2.6].map((swing, day) => ({ day, swing }))
    drawOver(plot, { ...marks, swings }, pen)
    const [good, watch, act] = rects
    expect([good?.ink, watch?.ink, act?.ink]).toEqual(['mild', 'warm1', 'warm2'])
    expect(good?.height).toBeLessThan(watch?.height ?? 0)
    expect(watch?.height).toBeLessThan(act?.height ?? 0)
  })

  it('has a mark for every act of the keeper', () => {
    const { plot, rects } = plotted(times)
    const events = [1, 5].map((day) => ({ at: at(day), kind: 'set point', text: 'Set' }))
    drawOver(plot, { ...marks, events }, pen)
    expect(rects.filter((r) => r.ink === 'yolk-ink').map((r) => r.x)).toEqual([100, 500])
  })
})
