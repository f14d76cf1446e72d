import { type AriaRole, useEffect } from 'react'
import uPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import { useTheme } from '@/shared/theme/useTheme'
import { useWidth } from '@/shared/ui/useWidth'
import { type Pen, penOf } from './pen'

/** A chart without its size, in the colours and letters of the pen, and what it is of. */
export type Drawing = (
  pen: Pen,
  width: number,
) => { options: Omit<uPlot.Options, 'width' | 'height'>; data: uPlot.AlignedData }

type Props = {
  /** Kept from render to render (useCallback): another drawing is another chart. */
  drawing: Drawing
  /** px; told from outside, where room is kept until this script is here. */
  height: number
  role?: AriaRole
  label?: string
}

/** A still chart as wide as its place, made anew for another width, theme or drawing. */
export function Plot({ drawing, height, role, label }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>()
  const theme = useTheme()
  useEffect(() => {
    const host = ref.current
    if (!host || width === 0 || !theme) return
    const { options, data } = drawing(penOf(host), width)
    const still = { legend: { show: false }, cursor: { show: false } }
    const chart = new uPlot({ ...still, ...options, width, height }, data, host)
    return () => chart.destroy()
  }, [ref, width, theme, drawing, height])
  return (
    <div
      ref={ref}
      // As wide as its place, never its place as wide as the chart: phones are turned.
      style={{ minHeight: height, contain: 'inline-size' }}
      {...(role ? { role, 'aria-label': label } : { 'aria-hidden': true })}
    />
  )
}
