import { Box } from '@chakra-ui/react'
import { day } from '@/shared/dates'
import { token } from '@/shared/theme/token'
import { useWidth } from '@/shared/ui/useWidth'
import { developed } from '@/shared/units'
import {
  developmentAt,
  developmentOn,
  exposureRuns,
  type Forecast,
  heightOf,
  momentOf,
  type Piece,
  pipDensity,
} from './scale'

type Props = {
  forecast: Forecast
  pieces: Piece[]
  laidAt: string
  /** When somebody looked at the box or did something there. */
  visits?: string[]
  /** A second forecast, drawn as a second plume. */
  other?: Forecast | undefined
}

const BAND = { top: 92, height: 30 }
const HEIGHT = 190

/**
 * From lay to first meals, measured in heat: cold days are short here, warm days long.
 * The band is coloured by the temperature the eggs got; the plume is when they pip.
 */
export function DevelopmentRibbon({ forecast, pieces, laidAt, visits = [], other }: Props) {
  const [frame, width] = useWidth<HTMLDivElement>()
  const end = Math.max(
    1.32,
    forecast.first_meal ? developmentAt(forecast, forecast.first_meal.p75) + 0.02 : 1.32,
    forecast.development + 0.1,
    other?.typical_pip ? developmentAt(forecast, other.typical_pip.p90) + 0.08 : 0,
  )
  const x = (development: number) => 2 + (development / end) * (width - 4)
  // Both forecasts pip at the same heat; the second is drawn where its dates fall.
  const byDate = (second: Forecast) => (development: number) =>
    x(developmentAt(forecast, new Date(momentOf(second, development)).toISOString()))
  return (
    <Box ref={frame} width="100%" overflow="hidden" minHeight={`${HEIGHT}px`}>
      {width > 0 && (
        <svg
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={inWords(forecast)}
          style={{ display: 'block' }}
        >
          <Band pieces={pieces} x={x} end={end} />
          <Days forecast={forecast} pieces={pieces} laidAt={laidAt} x={x} end={end} width={width} />
          {other && <Plume forecast={other} x={byDate(other)} end={end} second />}
          <Plume forecast={forecast} x={x} end={end} />
          <g stroke={token('ink')} strokeWidth={2}>
            {visits.map((visit) => {
              const at = x(developmentOn(Date.parse(visit), forecast, pieces))
              return <line key={visit} x1={at} x2={at} y1={BAND.top - 8} y2={BAND.top} />
            })}
          </g>
          <After forecast={forecast} x={x} width={width} />
          <Now forecast={forecast} x={x} width={width} />
        </svg>
      )}
    </Box>
  )
}

export function inWords(forecast: Forecast): string {
  const share = developed(forecast.fraction).replace(/\s*%/, ' percent')
  const pip = forecast.typical_pip
  const when = pip
    ? `typical pip ${day(pip.p50)}, most likely ${day(pip.p10)} to ${day(pip.p90)}`
    : 'no pip in sight'
  return `Development ribbon: day ${Math.floor(forecast.day)}, ${share} developed, ${when}`
}

type Scale = (development: number) => number

/** Room that the words beside today's line need, px. */
const LABEL = 150

function Band({ pieces, x, end }: { pieces: Piece[]; x: Scale; end: number }) {
  const { top, height } = BAND
  return (
    <g>
      <rect x={x(0)} y={top} width={x(end) - x(0)} height={height} fill={token('faint')} />
      {exposureRuns(pieces).map((run) => {
        const from = x(run.from)
        const wide = Math.max(0.5, x(run.to) - from)
        const colour = token(run.colour)
        return run.measured ? (
          <rect key={run.from} x={from} y={top} width={wide} height={height} fill={colour} />
        ) : (
          // A gap is left open, with a thin line at the temperature that stands in for it.
          <g key={run.from}>
            <rect x={from} y={top} width={wide} height={height} fill={token('paper')} />
            <rect x={from} y={top + height / 2 - 2} width={wide} height={4} fill={colour} />
          </g>
        )
      })}
      <rect
        x={x(0)}
        y={top}
        width={x(end) - x(0)}
        height={height}
        fill="none"
        stroke={token('soft')}
        strokeWidth={1.5}
      />
      <line
        x1={x(1)}
        x2={x(1)}
        y1={top}
        y2={top + height}
        stroke={token('soft')}
        strokeWidth={1.5}
        strokeDasharray="3 3"
      />
    </g>
  )
}

/** A tick every five days where that day really fell in heat, its number every ten. */
function Days({
  forecast,
  pieces,
  laidAt,
  x,
  end,
  width,
}: {
  forecast: Forecast
  pieces: Piece[]
  laidAt: string
  x: Scale
  end: number
  width: number
}) {
  const laid = Date.parse(laidAt)
  const last = Math.floor((momentOf(forecast, end) - laid) / 86_400_000)
  const step = width < 520 ? 20 : 10
  const ticks = []
  for (let number = 0; number <= last; number += 5) {
    const moment = laid + number * 86_400_000
    ticks.push({ number, at: x(developmentOn(moment, forecast, pieces)) })
  }
  const y = BAND.top + BAND.height
  return (
    <g fontSize={13} fill={token('soft')}>
      {ticks.map(({ number, at }) => (
        <g key={number}>
          <line
            x1={at}
            x2={at}
            y1={y}
            y2={y + (number % step ? 5 : 9)}
            stroke={token('soft')}
            strokeWidth={1.3}
          />
          {number % step === 0 && at < width - 14 && (
            <text x={Math.max(at, 4)} y={y + 24} textAnchor={number === 0 ? 'start' : 'middle'}>
              {number === 0 ? 'day 0' : number}
            </text>
          )}
        </g>
      ))}
    </g>
  )
}

function Plume({
  forecast,
  x,
  end,
  second = false,
}: {
  forecast: Forecast
  x: Scale
  end: number
  second?: boolean
}) {
  if (!forecast.typical_pip) return null
  const points = pipDensity(forecast, 0.6, end)
  // The plume grows taller as it narrows: the same amount of likelihood in less time.
  const tall = heightOf(forecast)
  const base = BAND.top - 2
  const line = points.map(
    (p) => `${x(p.development).toFixed(1)} ${(base - p.density * tall).toFixed(1)}`,
  )
  const [first, last] = [points[0], points.at(-1)]
  if (!first || !last) return null
  const area = `M${x(first.development)} ${base}L${line.join('L')}L${x(last.development)} ${base}Z`
  const colour = token(second ? 'plume2' : 'plume')
  return (
    <g>
      <path d={area} fill={colour} opacity={second ? 0.16 : 0.2} />
      <path
        d={`M${line.join('L')}`}
        fill="none"
        stroke={colour}
        strokeWidth={2}
        strokeDasharray={second ? '6 4' : undefined}
      />
    </g>
  )
}

function After({ forecast, x, width }: { forecast: Forecast; x: Scale; width: number }) {
  const { first_pip, typical_pip, first_meal } = forecast
  if (!first_pip || !typical_pip || !first_meal) return null
  const pip = x(developmentAt(forecast, typical_pip.p50))
  const meal = x(developmentAt(forecast, first_meal.p50))
  const y = HEIGHT - 12
  return (
    <g fontSize={14} fill={token('ink')}>
      <line
        x1={pip}
        x2={pip}
        y1={BAND.top - 62}
        y2={y - 14}
        stroke={token('ink')}
        strokeWidth={1.5}
        strokeDasharray="2 3"
      />
      <text x={pip - 6} y={y} textAnchor="end" fontWeight={650}>
        typical pip {day(typical_pip.p50)}
      </text>
      {width > 560 && meal < width - 4 && (
        <g>
          <circle cx={meal} cy={BAND.top + BAND.height / 2} r={4} fill={token('ink')} />
          <text
            x={Math.min(meal, width - 4)}
            y={y}
            textAnchor={meal > width - 130 ? 'end' : 'middle'}
          >
            first meals {day(first_meal.p50)}
          </text>
        </g>
      )}
    </g>
  )
}

function Now({ forecast, x, width }: { forecast: Forecast; x: Scale; width: number }) {
  const at = x(forecast.development)
  // Its words stand on the side where the plume is not, as far as there is room for them.
  const pip = forecast.typical_pip ? x(developmentAt(forecast, forecast.typical_pip.p50)) : width
  const right = pip > at ? at > LABEL : at > width - LABEL
  return (
    <g>
      <line
        x1={at}
        x2={at}
        y1={18}
        y2={BAND.top + BAND.height + 6}
        stroke={token('ink')}
        strokeWidth={3}
      />
      <text
        x={right ? at - 9 : at + 9}
        y={34}
        textAnchor={right ? 'end' : 'start'}
        fill={token('ink')}
      >
        <tspan style={{ fontSize: 26, fontWeight: 780 }}>
          {developed(forecast.fraction).replace(/\s*%/, '')}
        </tspan>
        <tspan style={{ fontSize: 16 }}> % developed</tspan>
      </text>
      <text
        x={right ? at - 9 : at + 9}
        y={56}
        textAnchor={right ? 'end' : 'start'}
        fill={token('soft')}
        fontSize={15}
      >
        day {Math.floor(forecast.day)}, {day(forecast.as_of)}
      </text>
    </g>
  )
}
