import type uPlot from 'uplot'
import type { Schemas } from '@/shared/api/client'
import { inPlot, type Pen } from '@/shared/charts/pen'
import { FAULT_WORDS, type Fault } from '@/shared/climate/faults'
import { DAY } from './traceView'

/** What is drawn with the trace, temperatures in the keeper's unit. */
export type Marks = {
  faults: Fault[]
  events: Schemas['EventResponse'][]
  setPoint: (number | null)[]
  /** Degrees around the set point that are fine. */
  fine: number
  swings: { day: number; swing: number }[]
  rules: Schemas['ClimateRules']
}

const STRIP = 9

type Context = CanvasRenderingContext2D

/** Under the lines: the fine band around the set point, and the spans of faults. */
export function drawBeneath(plot: uPlot, marks: Marks | null, pen: Pen) {
  if (!marks) return
  inPlot(plot, pen, (ctx) => {
    for (const piece of setPoints(plot.data[0], marks.setPoint)) {
      fineBand(ctx, plot, pen, piece, marks.fine)
    }
    ctx.fillStyle = pen.ink('vessel-soft')
    for (const fault of marks.faults.filter(ofTemperature)) {
      const [left, right] = spanOnScreen(plot, fault)
      ctx.fillRect(left, plot.bbox.top, Math.max(right - left, 2), plot.bbox.height)
    }
  })
}

type SetPoint = { value: number; from: number; until: number }

/** The set points in turn, each with the times between which it held. */
function setPoints(times: ArrayLike<number>, values: (number | null)[]): SetPoint[] {
  const pieces: SetPoint[] = []
  let start = 0
  for (let i = 1; i <= times.length; i++) {
    if (i < times.length && values[i] === values[start]) continue
    const value = values[start]
    const [from, until] = [times[start], times[i] ?? times[i - 1]]
    if (value != null && from != null && until != null) pieces.push({ value, from, until })
    start = i
  }
  return pieces
}

function fineBand(ctx: Context, plot: uPlot, pen: Pen, piece: SetPoint, fine: number) {
  const top = plot.valToPos(piece.value + fine, 'y', true)
  const bottom = plot.valToPos(piece.value - fine, 'y', true)
  const x = plot.valToPos(piece.from, 'x', true)
  const width = plot.valToPos(piece.until, 'x', true) - x
  ctx.fillStyle = pen.ink('faint')
  ctx.fillRect(x, top, width, bottom - top)
  // The edges, for eyes in a dim room: the band alone is faint.
  ctx.fillStyle = pen.ink('line')
  ctx.fillRect(x, top, width, devicePixelRatio)
  ctx.fillRect(x, bottom, width, devicePixelRatio)
}

/** Over the lines: names of faults, what the keeper did, and the swing of each day. */
export function drawOver(plot: uPlot, marks: Marks | null, pen: Pen) {
  if (!marks) return
  inPlot(plot, pen, (ctx) => {
    faultNames(ctx, plot, pen, marks.faults)
    events(ctx, plot, pen, marks.events)
    swings(ctx, plot, pen, marks)
  })
}

function faultNames(ctx: Context, plot: uPlot, pen: Pen, faults: Fault[]) {
  const ratio = devicePixelRatio
  const [first, last] = [plot.bbox.left, plot.bbox.left + plot.bbox.width]
  const taken: number[] = []
  for (const fault of faults) {
    if (fault.kind === 'egg heat') continue
    const [left, right] = spanOnScreen(plot, fault)
    if (right < first || left > last) continue
    const x = Math.max(left, first)
    ctx.fillStyle = pen.ink(ofTemperature(fault) ? 'vessel' : 'soft')
    const { name } = FAULT_WORDS[fault.kind]
    const { width } = ctx.measureText(name)
    // A name that begins near the right edge ends there.
    const nameX = Math.min(x + 2 * ratio, last - width)
    const row = rowFor(taken, nameX, width)
    const y = plot.bbox.top + (4 + row * 1.3 * pen.letters) * ratio
    ctx.fillRect(x, y, Math.max(Math.min(right, last) - x, 3), 3 * ratio)
    ctx.fillText(name, nameX, y + (pen.letters + 1) * ratio)
  }
}

function events(ctx: Context, plot: uPlot, pen: Pen, happened: Marks['events']) {
  const ratio = devicePixelRatio
  const top = plot.bbox.top + plot.bbox.height - (STRIP + 14) * ratio
  ctx.fillStyle = pen.ink('yolk-ink')
  for (const event of happened) {
    ctx.fillRect(plot.valToPos(Date.parse(event.at) / 1000, 'x', true), top, 2 * ratio, 12 * ratio)
  }
}

/** Colour and share of the strip's height, from quiet to wild: told without colour too. */
const SWING_LOOKS = [
  { ink: 'mild', share: 0.35 },
  { ink: 'warm1', share: 0.65 },
  { ink: 'warm2', share: 1 },
] as const

function swings(ctx: Context, plot: uPlot, pen: Pen, { swings, rules }: Marks) {
  const ratio = devicePixelRatio
  const bottom = plot.bbox.top + plot.bbox.height
  for (const { day, swing } of swings) {
    const offset = new Date(day * DAY * 1000).getTimezoneOffset() * 60
    const left = plot.valToPos(day * DAY + offset, 'x', true)
    const right = plot.valToPos((day + 1) * DAY + offset, 'x', true)
    const passed = [rules.swing_good_up_to_c, rules.swing_watch_up_to_c].filter((c) => swing > c)
    const look = SWING_LOOKS[passed.length] ?? SWING_LOOKS[2]
    const height = look.share * STRIP * ratio
    ctx.fillStyle = pen.ink(look.ink)
    ctx.fillRect(left, bottom - height, Math.max(right - left - ratio, 1), height)
  }
}

export function ofTemperature(fault: Fault): boolean {
  return ['fan', 'power cut', 'door', 'overshoot'].includes(fault.kind)
}

function spanOnScreen(plot: uPlot, fault: Fault): [number, number] {
  const until = fault.end ? Date.parse(fault.end) / 1000 : (plot.data[0].at(-1) ?? 0)
  return [plot.valToPos(Date.parse(fault.start) / 1000, 'x', true), plot.valToPos(until, 'x', true)]
}

/** The first row in which a name of that width does not run into the one before. */
function rowFor(taken: number[], x: number, width: number): number {
  let row = 0
  while ((taken[row] ?? Number.NEGATIVE_INFINITY) > x) row++
  taken[row] = x + width + 12 * devicePixelRatio
  return row
}
