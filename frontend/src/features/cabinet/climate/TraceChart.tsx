import { useEffect, useRef } from 'react'
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import { format } from 'date-fns'
import type { Schemas } from '@/shared/api/client'
import { type Pen, penOf } from '@/shared/charts/pen'
import type { Fault } from '@/shared/climate/faults'
import { useTheme } from '@/shared/theme/useTheme'
import { degrees, fromCelsius, type TemperatureUnit } from '@/shared/units'
import { drawBeneath, drawOver, type Marks } from './traceMarks'
import { DAY, dailySwings, type TimeSpan } from './traceView'

type Trace = Schemas['TraceResponse']

/** px. */
export const HEIGHT = 360

/** Line and dash of each probe, in order: told apart without colour as well. */
export const LINES = [
  { ink: 'ink', dash: [] },
  { ink: 'sound', dash: [] },
  { ink: 'yolk-ink', dash: [] },
  { ink: 'cold2', dash: [] },
  { ink: 'ink', dash: [6, 4] },
  { ink: 'sound', dash: [6, 4] },
  { ink: 'yolk-ink', dash: [6, 4] },
  { ink: 'cold2', dash: [6, 4] },
] as const

/** The trace itself. While the pointer drags, only the scale moves; nothing is computed anew. */
export function TraceChart({
  trace,
  view,
  width,
  unit,
  hidden,
  faults,
  events,
  rules,
  onView,
}: {
  trace: Trace
  view: TimeSpan
  width: number
  unit: TemperatureUnit
  hidden: ReadonlySet<number>
  faults: Fault[]
  events: Schemas['EventResponse'][]
  rules: Schemas['ClimateRules']
  onView: (view: TimeSpan) => void
}) {
  const host = useRef<HTMLDivElement>(null)
  const chart = useRef<uPlot | null>(null)
  const marks = useRef<Marks | null>(null)
  const theme = useTheme()
  const told = useRef(onView)
  told.current = onView
  const shown = trace.probes.filter((probe) => !hidden.has(probe.id))
  const lineUp = trace.probes.map((probe) => `${probe.id}${hidden.has(probe.id)}`).join()

  // biome-ignore lint/correctness/useExhaustiveDependencies: made anew for another line-up, not for new readings
  useEffect(() => {
    const element = host.current
    if (!element || width === 0 || !theme) return
    const drawn = options(penOf(element), trace, hidden, marks)
    const made = new uPlot({ ...drawn, width, height: HEIGHT }, [[]], element)
    const release = pannable(made, (span) => told.current(span))
    chart.current = made
    return () => {
      release()
      made.destroy()
      chart.current = null
    }
  }, [width, theme, lineUp, unit])

  // biome-ignore lint/correctness/useExhaustiveDependencies: moving the view computes nothing anew
  useEffect(() => {
    const plot = chart.current
    if (!plot) return
    const start = Date.parse(trace.start) / 1000
    const times = Array.from({ length: trace.count }, (_, i) => start + (i + 0.5) * trace.bucket_s)
    const shownAs = (values: (number | null)[]) =>
      values.map((c) => (c === null ? null : fromCelsius(c, unit)))
    marks.current = {
      faults,
      events,
      setPoint: shownAs(trace.set_point_c),
      fine: degrees(rules.fine_off_c, unit),
      swings: dailySwings(
        times,
        shown.map((p) => p.low),
        shown.map((p) => p.high),
        (t) => Math.floor((t - new Date(t * 1000).getTimezoneOffset() * 60) / DAY),
      ),
      rules,
    }
    plot.setData(
      [times, ...shown.flatMap((p) => [shownAs(p.low), shownAs(p.high)])] as uPlot.AlignedData,
      false,
    )
    plot.setScale('x', { min: view.from, max: view.until })
    performance.mark('trace-drawn')
    if (host.current) host.current.dataset.drawn = 'yes'
  }, [trace, faults, events, lineUp, unit, width, theme])

  useEffect(() => {
    const plot = chart.current
    if (!plot?.data[0]?.length) return
    if (plot.scales.x?.min !== view.from || plot.scales.x?.max !== view.until) {
      plot.setScale('x', { min: view.from, max: view.until })
    }
  }, [view])

  return (
    <div
      ref={host}
      style={{ minHeight: HEIGHT, contain: 'inline-size', touchAction: 'pan-y' }}
      data-trace
    />
  )
}

function options(
  pen: Pen,
  trace: Trace,
  hidden: ReadonlySet<number>,
  marks: { current: Marks | null },
): Omit<uPlot.Options, 'width' | 'height'> {
  const series: uPlot.Series[] = [{}]
  const bands: uPlot.Band[] = []
  trace.probes.forEach((probe, i) => {
    if (hidden.has(probe.id)) return
    const line = LINES[i % LINES.length] ?? LINES[0]
    const stroke = pen.ink(line.ink)
    const own = {
      stroke,
      width: 1.6,
      dash: [...line.dash],
      spanGaps: false,
      points: { show: false },
    }
    series.push(own, own)
    bands.push({ series: [series.length - 1, series.length - 2], fill: `${stroke}44` })
  })
  return {
    legend: { show: false },
    cursor: { show: true, drag: { x: false, y: false }, points: { show: false }, y: false },
    scales: {
      x: { time: true, auto: false },
      y: { range: (plot, low, high) => heightOf(low, high, marks.current, plot) },
    },
    axes: [
      {
        ...pen.axis,
        space: 7 * pen.letters,
        values: (_, at, __, ___, step) => at.map((t) => moment(t, step)),
      },
      {
        ...pen.axis,
        size: 4.5 * pen.letters,
        values: (_, at) => at.map((value) => `${value.toFixed(1)}°`),
      },
    ],
    series,
    bands,
    hooks: {
      drawClear: [(plot) => drawBeneath(plot, marks.current, pen)],
      draw: [(plot) => drawOver(plot, marks.current, pen)],
    },
  }
}

/** From the lowest to the highest reading on screen, with the fine band always in sight. */
function heightOf(
  low: number | null,
  high: number | null,
  marks: Marks | null,
  plot: uPlot,
): [number, number] {
  const wanted = (marks?.setPoint ?? []).filter((v): v is number => v !== null)
  const { min, max } = plot.scales.y ?? {}
  if (low === null || high === null) return [min ?? 25, max ?? 35]
  const least = Math.min(low, ...wanted.slice(0, 1).map((v) => v - 1))
  const most = Math.max(high, ...wanted.slice(-1).map((v) => v + 1))
  const room = (most - least) * 0.06
  // Room below for the strip of swings.
  return [least - room - (most - least) * 0.08, most + room]
}

function moment(time: number, step: number): string {
  return format(new Date(time * 1000), step >= DAY ? 'd MMM' : 'd MMM HH:mm')
}

/** Lets the pointer drag the time axis. Returns what takes that away again. */
function pannable(plot: uPlot, onPanned: (span: TimeSpan) => void): () => void {
  const over = plot.over
  let from: { x: number; min: number; max: number } | null = null
  const down = (event: PointerEvent) => {
    const { min, max } = plot.scales.x ?? {}
    if (min == null || max == null || event.button !== 0) return
    from = { x: event.clientX, min, max }
    over.setPointerCapture(event.pointerId)
    over.style.cursor = 'grabbing'
  }
  const move = (event: PointerEvent) => {
    if (!from) return
    const by = ((from.x - event.clientX) / over.clientWidth) * (from.max - from.min)
    plot.setScale('x', { min: from.min + by, max: from.max + by })
  }
  const up = () => {
    const { min, max } = plot.scales.x ?? {}
    const moved = from !== null && min !== from.min
    from = null
    over.style.cursor = 'grab'
    if (moved && min != null && max != null) onPanned({ from: min, until: max })
  }
  over.style.cursor = 'grab'
  over.addEventListener('pointerdown', down)
  over.addEventListener('pointermove', move)
  over.addEventListener('pointerup', up)
  over.addEventListener('pointercancel', up)
  return () => {
    over.removeEventListener('pointerdown', down)
    over.removeEventListener('pointermove', move)
    over.removeEventListener('pointerup', up)
    over.removeEventListener('pointercancel', up)
  }
}
