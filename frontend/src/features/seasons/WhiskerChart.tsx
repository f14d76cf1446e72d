import { chakra } from '@chakra-ui/react'
import { Bar, BarChart, CartesianGrid, XAxis, YAxis } from 'recharts'
import { token } from '@/shared/theme/token'
import { useWidth } from '@/shared/ui/useWidth'
import type { Group } from './queries'
import { type Whisker, whiskersOf } from './rates'

const ROW = 46
const AXIS = 34

/** Rates with their 90 % intervals, one line a group; a ring where the group is expected next. */
export function WhiskerChart({ groups, label }: { groups: Group[]; label: string }) {
  const [frame, width] = useWidth<HTMLDivElement>()
  const rows = whiskersOf(groups)
  const height = rows.length * ROW + AXIS
  return (
    <chakra.div ref={frame} height={`${height}px`} aria-hidden="true" data-chart={label}>
      {width > 0 && (
        <BarChart
          layout="vertical"
          width={width}
          height={height}
          data={rows}
          margin={{ top: 4, right: 22, bottom: 4, left: 0 }}
          accessibilityLayer={false}
        >
          <CartesianGrid horizontal={false} stroke={token('line')} />
          <XAxis
            type="number"
            domain={[0, 100]}
            ticks={[0, 25, 50, 75, 100]}
            tick={{ fontSize: 13, fill: token('soft') }}
            tickFormatter={(value: number) => `${value}\u00a0%`}
            stroke={token('soft')}
            tickLine={false}
          />
          <YAxis
            type="category"
            dataKey="name"
            width={width < 500 ? 112 : 210}
            tick={{ fontSize: 14, fill: token('ink') }}
            axisLine={false}
            tickLine={false}
          />
          <Bar dataKey="span" isAnimationActive={false} shape={<Mark />} />
        </BarChart>
      )}
    </chakra.div>
  )
}

type Place = { x?: number; y?: number; width?: number; height?: number; payload?: Whisker }

/** The interval, the rate on it, and the ring; the bar's ends are the interval's. */
function Mark({ x = 0, y = 0, width = 0, height = 0, payload }: Place) {
  if (!payload) return null
  const [low, high] = payload.span
  const at = (value: number) => x + (width * (value - low)) / Math.max(high - low, 0.01)
  const middle = y + height / 2
  return (
    <g stroke={token('ink')} strokeWidth={2}>
      <path
        d={`M${x} ${middle}H${x + width}M${x} ${middle - 7}v14M${x + width} ${middle - 7}v14`}
      />
      <circle cx={at(payload.rate)} cy={middle} r={5} fill={token('ink')} stroke="none" />
      {payload.drawn !== null && (
        <circle cx={at(payload.drawn)} cy={middle} r={8} fill="none" stroke={token('yolkInk')} />
      )}
    </g>
  )
}
