import { useCallback } from 'react'
import type uPlot from 'uplot'
import type { Schemas } from '@/shared/api/client'
import { type Drawing, Plot } from '@/shared/charts/Plot'
import { inPlot, type Pen } from '@/shared/charts/pen'
import { day } from '@/shared/dates'

type Props = {
  /** At least one. */
  weights: Schemas['WeightResponse'][]
  laidAt: string[]
  lightest: number | null
  /** px; told from outside, where room is kept until this script is here. */
  height: number
}

/** Room above and below the weights, g. */
const ROOM = 80

/** Weights over time with lay days as upright lines and the lightest breeding weight across. */
export function WeightChart({ weights, laidAt, lightest, height }: Props) {
  const drawing: Drawing = useCallback(
    (pen) => {
      const masses = weights.map((w) => w.mass_g)
      const low = Math.min(...masses, lightest ?? Number.POSITIVE_INFINITY)
      const high = Math.max(...masses, lightest ?? 0)
      const ink = pen.ink('ink')
      return {
        options: {
          scales: { y: { range: [low - ROOM, high + ROOM] } },
          axes: [
            { ...pen.axis, values: (_, at) => at.map((t) => day(new Date(t * 1000))) },
            { ...pen.axis, size: 4.8 * pen.letters, values: (_, at) => at.map((g) => `${g} g`) },
          ],
          series: [
            {},
            { stroke: ink, width: 2, points: { show: true, size: 8, fill: ink, stroke: ink } },
          ],
          hooks: { draw: [(plot) => marks(plot, pen, laidAt, lightest)] },
        },
        data: [weights.map((w) => Date.parse(w.at) / 1000), masses],
      }
    },
    [weights, laidAt, lightest],
  )
  const last = weights.at(-1)
  const label = `${weights.length} weights, the last ${last?.mass_g.toFixed(0)} g on ${last && day(last.at)}`
  return <Plot drawing={drawing} height={height} role="img" label={label} />
}

/** Lay days upright, the keeper's lightest breeding weight across. */
function marks(plot: uPlot, pen: Pen, laidAt: string[], lightest: number | null) {
  const { bbox } = plot
  const ratio = devicePixelRatio
  inPlot(plot, pen, (ctx) => {
    ctx.lineWidth = 2 * ratio
    ctx.fillStyle = pen.ink('soft')
    for (const laid of laidAt) {
      const x = plot.valToPos(Date.parse(laid) / 1000, 'x', true)
      ctx.strokeStyle = pen.ink('yolk-ink')
      ctx.beginPath()
      ctx.moveTo(x, bbox.top)
      ctx.lineTo(x, bbox.top + bbox.height)
      ctx.stroke()
      // Beside the line where there is room: after the last lay day there seldom is.
      const left = x + 3 * pen.letters * ratio > bbox.left + bbox.width
      ctx.textAlign = left ? 'right' : 'left'
      ctx.fillText('laid', x + (left ? -5 : 5) * ratio, bbox.top + 1.1 * pen.letters * ratio)
    }
    ctx.textAlign = 'left'
    if (lightest !== null) {
      const y = plot.valToPos(lightest, 'y', true)
      ctx.strokeStyle = pen.ink('soft')
      ctx.setLineDash([6 * ratio, 5 * ratio])
      ctx.beginPath()
      ctx.moveTo(bbox.left, y)
      ctx.lineTo(bbox.left + bbox.width, y)
      ctx.stroke()
      ctx.fillText('your minimum', bbox.left + 4 * ratio, y - 5 * ratio)
    }
  })
}
