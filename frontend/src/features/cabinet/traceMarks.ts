import type uPlot from 'uplot'
import type { Schemas } from '@/shared/api/client'
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

type Ink = (name: string) => string

/** Under the lines: the fine band around the set point, and the spans of faults. */
export function drawBeneath(plot: uPlot, marks: Marks | null, ink: Ink) {
  if (!marks) return
  inPlot(plot, (ctx) => {
    const times = plot.data[0]
    ctx.fillStyle = ink('faint')
    let start = 0
    for (let i = 1; i <= times.length; i++) {
      if (i < times.length && marks.setPoint[i] === marks.setPoint[start]) continue
      const value = marks.setPoint[start]
      const [left, right] = [times[start], times[i] ?? times[i - 1]]
      if (value != null && left != null && right != null) {
        const top = plot.valToPos(value + marks.fine, 'y', true)
        const bottom = plot.valToPos(value - marks.fine, 'y', true)
        const x = plot.valToPos(left, 'x', true)
        const width = plot.valToPos(right, 'x', true) - x
        ctx.fillRect(x, top, width, bottom - top)
        // The edges, for eyes in a dim room: the band alone is faint.
        ctx.fillStyle = ink('line')
        ctx.fillRect(x, top, width, devicePixelRatio)
        ctx.fillRect(x, bottom, width, devicePixelRatio)
        ctx.fillStyle = ink('faint')
      }
      start = i
    }
    for (const fault of marks.faults) {
      const [left, right] = spanOnScreen(plot, fault)
      ctx.fillStyle = ink('vessel-soft')
      if (ofTemperature(fault)) {
        ctx.fillRect(left, plot.bbox.top, Math.max(right - left, 2), plot.bbox.height)
      }
    }
  })
}

/** Over the lines: names of faults, what the keeper did, and the swing of each day. */
export function drawOver(plot: uPlot, marks: Marks | null, ink: Ink, font: string) {
  if (!marks) return
  const ratio = devicePixelRatio
  inPlot(plot, (ctx) => {
    ctx.font = font.replace('13px', `${13 * ratio}px`)
    ctx.textAlign = 'left'
    ctx.textBaseline = 'alphabetic'
    const taken: number[] = []
    for (const fault of marks.faults) {
      if (fault.kind === 'egg heat') continue
      const [left, right] = spanOnScreen(plot, fault)
      if (right < plot.bbox.left || left > plot.bbox.left + plot.bbox.width) continue
      const x = Math.max(left, plot.bbox.left)
      ctx.fillStyle = ink(ofTemperature(fault) ? 'vessel' : 'soft')
      const { name } = FAULT_WORDS[fault.kind]
      const { width } = ctx.measureText(name)
      // A name that begins near the right edge ends there.
      const nameX = Math.min(x + 2 * ratio, plot.bbox.left + plot.bbox.width - width)
      const row = rowFor(taken, nameX, width)
      const y = plot.bbox.top + (4 + row * 17) * ratio
      ctx.fillRect(
        x,
        y,
        Math.max(Math.min(right, plot.bbox.left + plot.bbox.width) - x, 3),
        3 * ratio,
      )
      ctx.fillText(name, nameX, y + 14 * ratio)
    }
    for (const event of marks.events) {
      const x = plot.valToPos(Date.parse(event.at) / 1000, 'x', true)
      ctx.fillStyle = ink('yolk-ink')
      ctx.fillRect(
        x,
        plot.bbox.top + plot.bbox.height - (STRIP + 14) * ratio,
        2 * ratio,
        12 * ratio,
      )
    }
    const { swing_good_up_to_c: good, swing_watch_up_to_c: watch } = marks.rules
    const bottom = plot.bbox.top + plot.bbox.height - STRIP * ratio
    for (const { day, swing } of marks.swings) {
      const offset = new Date(day * DAY * 1000).getTimezoneOffset() * 60
      const left = plot.valToPos(day * DAY + offset, 'x', true)
      const right = plot.valToPos((day + 1) * DAY + offset, 'x', true)
      ctx.fillStyle = ink(swing <= good ? 'mild' : swing <= watch ? 'warm1' : 'warm2')
      // Taller where it swings more: told without colour too.
      const height = (swing <= good ? 0.35 : swing <= watch ? 0.65 : 1) * STRIP * ratio
      ctx.fillRect(left, bottom + STRIP * ratio - height, Math.max(right - left - ratio, 1), height)
    }
  })
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

function inPlot(plot: uPlot, draw: (ctx: CanvasRenderingContext2D) => void) {
  const { ctx, bbox } = plot
  ctx.save()
  ctx.beginPath()
  ctx.rect(bbox.left, bbox.top, bbox.width, bbox.height)
  ctx.clip()
  draw(ctx)
  ctx.restore()
}
