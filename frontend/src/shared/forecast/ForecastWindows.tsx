import { chakra, Span } from '@chakra-ui/react'
import { day, dayRange } from '@/shared/dates'
import { token } from '@/shared/theme/token'
import { useWidth } from '@/shared/ui/useWidth'
import type { Forecast, Window } from './scale'

const ROWS = [
  ['First pip', 'first_pip'],
  ['Next pip', 'next_pip'],
  ['Typical pip', 'typical_pip'],
  ['Last pip', 'last_pip'],
  ['Next out', 'next_out'],
  ['All out', 'all_out'],
  ['First shed', 'first_shed'],
  ['First meal', 'first_meal'],
] as const

/** Every window on one axis of days: thin line 80 %, thick line 50 %, the median as a mark. */
export function ForecastWindows({ forecast }: { forecast: Forecast }) {
  const rows = ROWS.flatMap(([label, key]) => {
    const window = forecast[key]
    return window ? [{ label, window }] : []
  })
  const from = Math.min(...rows.map((r) => Date.parse(r.window.p10)))
  const to = Math.max(...rows.map((r) => Date.parse(r.window.p90)))
  return (
    <chakra.table width="100%" borderCollapse="collapse" fontSize={{ base: 'fine', md: '1em' }}>
      <chakra.caption srOnly>Forecast windows</chakra.caption>
      <chakra.thead fontSize="small" color="soft">
        <tr>
          <chakra.th textAlign="left" fontWeight="medium" py={1}>
            <Span srOnly>Event</Span>
          </chakra.th>
          <chakra.th textAlign="left" fontWeight="medium">
            median
          </chakra.th>
          <chakra.th textAlign="left" fontWeight="medium" hideBelow="md">
            <Span srOnly>Drawn</Span>
          </chakra.th>
          <chakra.th textAlign="right" fontWeight="medium">
            50 %
          </chakra.th>
          <chakra.th textAlign="right" fontWeight="medium">
            80 %
          </chakra.th>
        </tr>
      </chakra.thead>
      <tbody>
        {rows.map(({ label, window }) => (
          <chakra.tr key={label} borderTop="1px solid" borderColor="line">
            <chakra.th
              scope="row"
              textAlign="left"
              fontWeight="semibold"
              py={2}
              pe={{ base: 1, md: 3 }}
              whiteSpace="var(--one-line)"
            >
              {label}
            </chakra.th>
            <chakra.td
              fontWeight="bold"
              fontSize="lead"
              whiteSpace="var(--one-line)"
              pe={{ base: 1, md: 3 }}
            >
              {day(window.p50)}
            </chakra.td>
            <chakra.td width="42%" hideBelow="md">
              <Interval window={window} from={from} to={to} />
            </chakra.td>
            <chakra.td textAlign="right" whiteSpace="var(--one-line)" ps={{ base: 1, md: 3 }}>
              {dayRange(window.p25, window.p75)}
            </chakra.td>
            <chakra.td
              textAlign="right"
              whiteSpace="var(--one-line)"
              ps={{ base: 1, md: 3 }}
              color="soft"
            >
              {dayRange(window.p10, window.p90)}
            </chakra.td>
          </chakra.tr>
        ))}
      </tbody>
    </chakra.table>
  )
}

function Interval({ window, from, to }: { window: Window; from: number; to: number }) {
  const [frame, width] = useWidth<HTMLDivElement>()
  const x = (moment: string) => 6 + ((Date.parse(moment) - from) / (to - from)) * (width - 12)
  return (
    <div ref={frame} style={{ height: 22 }}>
      {width > 0 && (
        <svg width={width} height={22} aria-hidden style={{ display: 'block' }}>
          <line
            x1={x(window.p10)}
            x2={x(window.p90)}
            y1={11}
            y2={11}
            stroke={token('soft')}
            strokeWidth={2}
          />
          <line
            x1={x(window.p25)}
            x2={x(window.p75)}
            y1={11}
            y2={11}
            stroke={token('ink')}
            strokeWidth={7}
          />
          <rect x={x(window.p50) - 2} y={2} width={4} height={18} fill={token('paper')} />
          <rect x={x(window.p50) - 1} y={2} width={2} height={18} fill={token('ink')} />
        </svg>
      )}
    </div>
  )
}
