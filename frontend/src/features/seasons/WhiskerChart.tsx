import { useCallback } from 'react'
import type uPlot from 'uplot'
import { type Drawing, Plot } from '@/shared/charts/Plot'
import { inPlot, type Pen, pxOfRem } from '@/shared/charts/pen'
import type { Group } from './queries'
import { chartHeightRem, type Whisker, whiskersOf } from './rates'

type Props = { groups: Group[] }

/** Rates with their 90 % intervals, one line a group; a ring where the group is expected next. */
export function WhiskerChart({ groups }: Props) {
  const drawing: Drawing = useCallback(
    (pen, width) => {
      const rows = whiskersOf(groups)
      return {
        options: {
          padding: [4, 22, 0, 0],
          scales: {
            x: { time: false, ori: 1, dir: -1, range: [-0.5, rows.length - 0.5] },
            y: { ori: 0, dir: 1, range: [0, 100] },
          },
          axes: [
            {
              ...pen.axis,
              side: 3,
              stroke: pen.ink('ink'),
              size: (width < 500 ? 8 : 15) * pen.letters,
              grid: { show: false },
              splits: rows.map((_, i) => i),
              values: () => rows.map((row) => row.name),
            },
            {
              ...pen.axis,
              side: 2,
              size: 2.4 * pen.letters,
              splits: [0, 25, 50, 75, 100],
              values: (_, at) => at.map((share) => `${share}\u00a0%`),
            },
          ],
          series: [{}, { stroke: pen.ink('ink'), points: { show: false }, paths: () => null }],
          hooks: { draw: [(plot) => whiskers(plot, pen, rows)] },
        },
        data: [rows.map((_, i) => i), rows.map((row) => row.rate)],
      }
    },
    [groups],
  )
  return <Plot drawing={drawing} height={pxOfRem(chartHeightRem(groups))} />
}

/** Each interval with its ends, the rate on it, and the ring. */
function whiskers(plot: uPlot, pen: Pen, rows: Whisker[]) {
  const ratio = devicePixelRatio
  const at = (share: number) => plot.valToPos(share, 'y', true)
  inPlot(plot, pen, (ctx) => {
    ctx.lineWidth = 2 * ratio
    ctx.fillStyle = pen.ink('ink')
    rows.forEach(({ rate, span: [low, high], drawn }, i) => {
      const middle = plot.valToPos(i, 'x', true)
      const end = 7 * ratio
      ctx.strokeStyle = pen.ink('ink')
      ctx.beginPath()
      ctx.moveTo(at(low), middle)
      ctx.lineTo(at(high), middle)
      for (const x of [at(low), at(high)]) {
        ctx.moveTo(x, middle - end)
        ctx.lineTo(x, middle + end)
      }
      ctx.stroke()
      ctx.beginPath()
      ctx.arc(at(rate), middle, 5 * ratio, 0, 2 * Math.PI)
      ctx.fill()
      if (drawn === null) return
      ctx.strokeStyle = pen.ink('yolk-ink')
      ctx.beginPath()
      ctx.arc(at(drawn), middle, 8 * ratio, 0, 2 * Math.PI)
      ctx.stroke()
    })
  })
}
