import { chakra } from '@chakra-ui/react'
import { useEffect } from 'react'
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import type { Schemas } from '@/shared/api/client'
import { day } from '@/shared/dates'
import { useTheme } from '@/shared/theme/useTheme'
import { useWidth } from '@/shared/ui/useWidth'

/** Weights over time, at least one, with lay days as upright lines and the lightest breeding weight across. */
export function WeightChart({
  weights,
  laidAt,
  lightest,
  height,
}: {
  weights: Schemas['WeightResponse'][]
  laidAt: string[]
  lightest: number | null
  /** px; told from outside, where room is kept until this script is here. */
  height: number
}) {
  const [ref, width] = useWidth<HTMLDivElement>()
  const theme = useTheme()
  useEffect(() => {
    const host = ref.current
    if (!host || width === 0 || !theme) return
    const ink = (name: string) =>
      getComputedStyle(host).getPropertyValue(`--sb-colors-${name}`).trim()
    const times = weights.map((w) => Date.parse(w.at) / 1000)
    const masses = weights.map((w) => w.mass_g)
    const axis = {
      stroke: ink('soft'),
      font: `13px ${getComputedStyle(host).fontFamily}`,
      grid: { stroke: ink('line'), width: 1 },
      ticks: { show: false },
    }
    const low = Math.min(...masses, lightest ?? Number.POSITIVE_INFINITY)
    const high = Math.max(...masses, lightest ?? 0)
    const chart = new uPlot(
      {
        width,
        height,
        legend: { show: false },
        cursor: { show: false },
        scales: { y: { range: [low - 80, high + 80] } },
        axes: [
          { ...axis, values: (_, at) => at.map((t) => day(new Date(t * 1000))) },
          { ...axis, size: 62, values: (_, at) => at.map((g) => `${g} g`) },
        ],
        series: [
          {},
          {
            stroke: ink('ink'),
            width: 2,
            points: { show: true, size: 8, fill: ink('ink'), stroke: ink('ink') },
          },
        ],
        hooks: { draw: [(plot) => marks(plot, laidAt, lightest, ink)] },
      },
      [times, masses],
      host,
    )
    return () => chart.destroy()
  }, [ref, width, weights, laidAt, lightest, theme, height])
  const last = weights.at(-1)
  return (
    <chakra.div
      ref={ref}
      role="img"
      minHeight={`${height}px`}
      aria-label={`${weights.length} weights, the last ${last?.mass_g.toFixed(0)} g on ${last && day(last.at)}`}
    />
  )
}

/** Lay days upright, the keeper's lightest breeding weight across. */
function marks(
  plot: uPlot,
  laidAt: string[],
  lightest: number | null,
  ink: (name: string) => string,
) {
  const { ctx, bbox } = plot
  const ratio = devicePixelRatio
  ctx.save()
  ctx.beginPath()
  ctx.rect(bbox.left, bbox.top, bbox.width, bbox.height)
  ctx.clip()
  ctx.lineWidth = 2 * ratio
  // The axes leave their own alignment behind.
  ctx.textAlign = 'left'
  ctx.textBaseline = 'alphabetic'
  ctx.fillStyle = ink('soft')
  ctx.font = `${13 * ratio}px ${getComputedStyle(plot.root).fontFamily}`
  for (const laid of laidAt) {
    const x = plot.valToPos(Date.parse(laid) / 1000, 'x', true)
    ctx.strokeStyle = ink('yolk-ink')
    ctx.beginPath()
    ctx.moveTo(x, bbox.top)
    ctx.lineTo(x, bbox.top + bbox.height)
    ctx.stroke()
    // Beside the line where there is room: after the last lay day there seldom is.
    const left = x + 40 * ratio > bbox.left + bbox.width
    ctx.textAlign = left ? 'right' : 'left'
    ctx.fillText('laid', x + (left ? -5 : 5) * ratio, bbox.top + 14 * ratio)
  }
  ctx.textAlign = 'left'
  if (lightest !== null) {
    const y = plot.valToPos(lightest, 'y', true)
    ctx.strokeStyle = ink('soft')
    ctx.setLineDash([6 * ratio, 5 * ratio])
    ctx.beginPath()
    ctx.moveTo(bbox.left, y)
    ctx.lineTo(bbox.left + bbox.width, y)
    ctx.stroke()
    ctx.fillText('your minimum', bbox.left + 4 * ratio, y - 5 * ratio)
  }
  ctx.restore()
}
