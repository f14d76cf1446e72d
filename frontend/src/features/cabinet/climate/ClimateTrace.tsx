import { Box, chakra, Flex, HStack, Span } from '@chakra-ui/react'
import { type KeyboardEvent, useState } from 'react'
import type { Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { dayAndTime } from '@/shared/dates'
import { useKeys } from '@/shared/keys/useKeys'
import { token } from '@/shared/theme/token'
import { Button } from '@/shared/ui/Button'
import { Fetching } from '@/shared/ui/page'
import { useWidth } from '@/shared/ui/useWidth'
import { difference, type TemperatureUnit, temperature, useTemperatureUnit } from '@/shared/units'
import { useTrace } from '../queries'
import { HEIGHT, LINES, TraceChart } from './TraceChart'
import { around, DAY, HOUR, POINTS, panned, serves, type TimeSpan, zoomed } from './traceView'

const SPANS = [
  { name: '48 hours', seconds: 2 * DAY },
  { name: '14 days', seconds: 14 * DAY },
  { name: 'Season', seconds: 60 * DAY },
] as const

/** Temperatures of every probe, a season at a glance and every reading when looked at closely. */
export function ClimateTrace({ cabinet }: { cabinet: Schemas['CabinetResponse'] }) {
  const unit = useTemperatureUnit()
  const [frame, width] = useWidth<HTMLDivElement>()
  const now = Date.parse(cabinet.as_of) / 1000
  const limits: TimeSpan = {
    from: cabinet.first_reading_at ? Date.parse(cabinet.first_reading_at) / 1000 : now - 60 * DAY,
    until: now,
  }
  // A young record fills the width too: no season is shown that was not measured.
  const latest = (seconds: number): TimeSpan => {
    const back = Math.min(seconds, Math.max(now - limits.from, DAY / 4))
    return { from: now - back, until: now + back * 0.02 }
  }
  const [view, setView] = useState<TimeSpan>(latest(60 * DAY))
  const [fetched, setFetched] = useState<TimeSpan>(around(view))
  const [hidden, setHidden] = useState<ReadonlySet<number>>(new Set())
  const rules = useRules().data?.climate
  const trace = useTrace(cabinet.name, fetched.from, fetched.until, POINTS)

  const look = (next: TimeSpan) => {
    setView(next)
    if (!serves(fetched, next)) setFetched(around(next))
  }
  const keys = (event: KeyboardEvent) => {
    const next = {
      ArrowLeft: () => panned(view, -0.2, limits),
      ArrowRight: () => panned(view, 0.2, limits),
      '+': () => zoomed(view, 0.6, limits),
      '-': () => zoomed(view, 1 / 0.6, limits),
    }[event.key]
    if (!next) return
    event.preventDefault()
    look(next())
  }
  useKeys('place', 'Climate trace', [
    { keys: ['ArrowLeft', 'ArrowRight', '+', '-'], shown: 'arrows + -', what: 'move it and zoom' },
  ])
  if (cabinet.probes.length === 0) {
    return <p>Nothing measures here yet.</p>
  }

  return (
    <div ref={frame}>
      <HStack wrap="wrap" gap={2} mb={3}>
        {SPANS.map(({ name, seconds }) => (
          <Button key={name} type="button" size="small" onClick={() => look(latest(seconds))}>
            {name}
          </Button>
        ))}
        <Button
          type="button"
          size="small"
          aria-label="Closer"
          onClick={() => look(zoomed(view, 0.6, limits))}
        >
          +
        </Button>
        <Button
          type="button"
          size="small"
          aria-label="Further"
          onClick={() => look(zoomed(view, 1 / 0.6, limits))}
        >
          −
        </Button>
        <Span color="soft" fontSize="small" role="status">
          {dayAndTime(new Date(view.from * 1000))} to {dayAndTime(new Date(view.until * 1000))}
          {trace.data && `, ${fineness(trace.data)}`}
        </Span>
      </HStack>
      {trace.data && rules ? (
        <Box
          role="group"
          tabIndex={0}
          aria-label={inWords(cabinet, trace.data, unit)}
          onKeyDown={keys}
          opacity={trace.isPlaceholderData ? 0.75 : 1}
        >
          <TraceChart
            trace={trace.data}
            view={view}
            width={width}
            unit={unit}
            hidden={hidden}
            faults={cabinet.faults}
            events={cabinet.events}
            rules={rules}
            onView={look}
          />
        </Box>
      ) : (
        <Box minHeight={`${HEIGHT}px`}>
          <Fetching problem={trace.error?.message} />
        </Box>
      )}
      <Legend
        fineOff={rules?.fine_off_c}
        probes={trace.data?.probes ?? []}
        hidden={hidden}
        onToggle={(id) => {
          const next = new Set(hidden)
          if (!next.delete(id)) next.add(id)
          setHidden(next)
        }}
      />
    </div>
  )
}

function Legend({
  fineOff,
  probes,
  hidden,
  onToggle,
}: {
  fineOff: number | undefined
  probes: Schemas['ProbeTraceResponse'][]
  hidden: ReadonlySet<number>
  onToggle: (id: number) => void
}) {
  const unit = useTemperatureUnit()
  return (
    <Flex wrap="wrap" columnGap={4} rowGap={1} mt={1}>
      {probes.map((probe, i) => {
        const line = LINES[i % LINES.length] ?? LINES[0]
        const shown = !hidden.has(probe.id)
        return (
          <chakra.button
            key={probe.id}
            type="button"
            aria-pressed={shown}
            onClick={() => onToggle(probe.id)}
            display="inline-flex"
            alignItems="center"
            gap={2}
            minHeight="thumbSmall"
            cursor="pointer"
            color={shown ? 'ink' : 'soft'}
            textDecoration={shown ? undefined : 'line-through'}
          >
            <svg width={30} height={6} aria-hidden>
              <line
                x1={0}
                x2={30}
                y1={3}
                y2={3}
                stroke={token(line.ink.replace(/-(\w)/g, (_, c: string) => c.toUpperCase()))}
                strokeWidth={3}
                strokeDasharray={line.dash.join(' ')}
              />
            </svg>
            {probe.name}
          </chakra.button>
        )
      })}
      <Span color="soft" fontSize="small" alignSelf="center">
        {fineOff !== undefined && `Band: set point ±${difference(fineOff, unit)}. `}
        Strip below: swing of each day, tall where it needs you. Drag to move.
      </Span>
    </Flex>
  )
}

function fineness(trace: Schemas['TraceResponse']): string {
  if (trace.raw) return 'every reading'
  const hours = trace.bucket_s / HOUR
  const step = hours >= 1 ? `${hours} h` : `${Math.round(trace.bucket_s / 60)} min`
  return `lowest to highest of every ${step}`
}

/** The drawing in words, for whoever cannot see it. */
function inWords(
  cabinet: Schemas['CabinetResponse'],
  trace: Schemas['TraceResponse'],
  unit: TemperatureUnit,
): string {
  const values = trace.probes.flatMap((p) => [...p.low, ...p.high]).filter((v) => v !== null)
  if (values.length === 0) return 'Climate: no readings in this span'
  const low = values.reduce((a, b) => Math.min(a, b))
  const high = values.reduce((a, b) => Math.max(a, b))
  return `Climate of ${cabinet.name}: ${trace.probes.length} probes, from ${temperature(low, unit)} to ${temperature(high, unit)}. Arrow keys move, plus and minus zoom.`
}
