import { useCallback } from 'react'
import type uPlot from 'uplot'
import { type Drawing, Plot } from '@/shared/charts/Plot'
import { inPlot, type Pen, pxOfRem } from '@/shared/charts/pen'
import { type Bin, dotsOf, RELIABILITY_REM } from './reliability'

/** Dots of the first, and rings of the second where there is one. */
type Props = { bins: readonly Bin[]; rings?: readonly Bin[] | undefined }

/** Chances said (across) against shares that came (up), with 90 % bars; on the line was right. */
export function ReliabilityChart({ bins, rings }: Props) {
  const drawing: Drawing = useCallback(
    (pen) => {
      const share = (_: uPlot, at: number[]) => at.map((value) => `${value}\u00a0%`)
      const axis = { ...pen.axis, splits: [0, 25, 50, 75, 100], values: share }
      return {
        options: {
          padding: [10, 22, 0, 0],
          scales: { x: { time: false, range: [-8, 108] }, y: { range: [-8, 108] } },
          axes: [
            { ...axis, size: 2.4 * pen.letters },
            { ...axis, size: 4 * pen.letters },
          ],
          series: [{}, { stroke: pen.ink('ink'), points: { show: false }, paths: () => null }],
          hooks: { draw: [(plot) => drawn(plot, pen, bins, rings)] },
        },
        data: [
          [0, 100],
          [0, 100],
        ],
      }
    },
    [bins, rings],
  )
  return <Plot drawing={drawing} height={pxOfRem(RELIABILITY_REM)} />
}

function drawn(plot: uPlot, pen: Pen, dots: readonly Bin[], rings: readonly Bin[] | undefined) {
  const ratio = devicePixelRatio
  const at: At = {
    x: (share) => plot.valToPos(share, 'x', true),
    y: (share) => plot.valToPos(share, 'y', true),
    ratio,
  }
  inPlot(plot, pen, (ctx) => {
    ctx.strokeStyle = pen.ink('line')
    ctx.lineWidth = 2 * ratio
    ctx.beginPath()
    ctx.moveTo(at.x(0), at.y(0))
    ctx.lineTo(at.x(100), at.y(100))
    ctx.stroke()
    if (rings) marks(ctx, pen.ink('yolk-ink'), at, rings, false)
    marks(ctx, pen.ink('ink'), at, dots, true)
  })
}

type At = { x: (share: number) => number; y: (share: number) => number; ratio: number }

/** Each bin with its bar: a dot, or a ring. */
function marks(
  ctx: CanvasRenderingContext2D,
  ink: string,
  { x, y, ratio }: At,
  told: readonly Bin[],
  filled: boolean,
) {
  ctx.strokeStyle = ink
  ctx.fillStyle = ink
  ctx.lineWidth = 2 * ratio
  for (const dot of dotsOf(told)) {
    ctx.beginPath()
    ctx.moveTo(x(dot.said), y(dot.low))
    ctx.lineTo(x(dot.said), y(dot.high))
    ctx.stroke()
    ctx.beginPath()
    ctx.arc(x(dot.said), y(dot.came), dot.radius * ratio, 0, 2 * Math.PI)
    if (filled) ctx.fill()
    else ctx.stroke()
  }
}
