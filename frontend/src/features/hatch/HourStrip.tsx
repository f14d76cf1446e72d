import { Text } from '@chakra-ui/react'
import { useRules } from '@/shared/api/queries'
import { token } from '@/shared/theme/token'
import { useWidth } from '@/shared/ui/useWidth'
import { type HourSpan, momentAt, placeOf, ticksOf } from './hours'
import type { HatchingClutch, HatchingEgg } from './queries'

const HEIGHT = 34
const MIDDLE = HEIGHT / 2

/** The hours along the top: since the first pip, with now. */
export function HourScale({ span }: { span: HourSpan }) {
  const now = placeOf(span.now, span)
  const [frame, width] = useWidth<HTMLDivElement>()
  return (
    <div ref={frame}>
      <svg width="100%" height={40} style={{ display: 'block', overflow: 'visible' }} aria-hidden>
        {ticksOf(span, width / 62).map((hour) => {
          const x = placeOf(momentAt(hour, span), span)
          const near = (Math.abs(x - now) * width) / 100 < 44
          return (
            <g key={hour}>
              <line x1={`${x}%`} x2={`${x}%`} y1={32} y2={40} stroke={token('soft')} />
              {!near && (
                <text x={`${x}%`} y={27} textAnchor="middle" fontSize={14} fill={token('soft')}>
                  {hour === 0 && width > 420 ? 'first pip' : `${hour} h`}
                </text>
              )}
            </g>
          )
        })}
        <text
          x={`${now}%`}
          y={13}
          textAnchor="middle"
          fontSize={14}
          fontWeight={750}
          fill={token('ink')}
        >
          now
        </text>
        <line x1={`${now}%`} x2={`${now}%`} y1={18} y2={40} stroke={token('ink')} strokeWidth={2} />
      </svg>
    </div>
  )
}

/** One egg by the hour: closed (dots), pipped (line), out (shell); ahead, when it is likely. */
export function HourStrip({
  hatching,
  clutch,
  span,
}: {
  hatching: HatchingEgg
  clutch: HatchingClutch
  span: HourSpan
}) {
  const [rescueFrom = 0, rescueBy = 0] = useRules().data?.hatch.rescue_hours ?? []
  const { egg } = hatching
  const at = (moment: string | number) => `${placeOf(moment, span)}%`
  const now = at(span.now)
  const closedUntil = egg.pipped_at ?? egg.cut_at ?? egg.emerged_at
  const waiting = clutch.closed.includes(egg.number)
  const ahead = hatching.emergence ?? (waiting ? clutch.last_pip : null)
  return (
    <svg
      width="100%"
      height={HEIGHT}
      style={{ display: 'block', overflow: 'visible' }}
      aria-hidden="true"
    >
      {rescueBy > 0 && waiting && (
        <Band from={at(momentAt(rescueFrom, span))} to={at(momentAt(rescueBy, span))} span={span} />
      )}
      {ahead && (
        <Ahead from={placeOf(ahead.p10, span)} to={placeOf(ahead.p90, span)} pip={waiting} />
      )}
      <line
        x1="0%"
        x2={closedUntil ? at(closedUntil) : now}
        y1={MIDDLE}
        y2={MIDDLE}
        stroke={token('soft')}
        strokeWidth={2}
        strokeDasharray="2 6"
        strokeLinecap="round"
      />
      {closedUntil && (
        <line
          x1={at(closedUntil)}
          x2={egg.emerged_at ? at(egg.emerged_at) : now}
          y1={MIDDLE}
          y2={MIDDLE}
          stroke={token('ink')}
          strokeWidth={3}
        />
      )}
      <line x1={now} x2={now} y1={0} y2={HEIGHT} stroke={token('ink')} strokeWidth={2} />
      {egg.cut_at && <Mark at={at(egg.cut_at)} path="M-6 -11V3H6V-11" />}
      {egg.pipped_at && <Mark at={at(egg.pipped_at)} path="M-9 5L-3 -7L3 3L9 -9" />}
      {egg.emerged_at && (
        <Mark
          at={at(egg.emerged_at)}
          path="M-13 0A8 10 0 0 1 -2 -8L-4 -1L-1 5A9 9 0 0 1 -13 0ZM13 0A8 10 0 0 0 3 -8L5 0L2 7A9 9 0 0 0 13 0Z"
          filled
        />
      )}
    </svg>
  )
}

/** The hours in which a rescue comes to be considered. */
function Band({ from, to, span }: { from: string; to: string; span: HourSpan }) {
  if (from === '100%' || span.to <= span.zero) return null
  return (
    <line
      x1={from}
      x2={to}
      y1={HEIGHT - 2}
      y2={HEIGHT - 2}
      stroke={token('yolk')}
      strokeWidth={4}
    />
  )
}

/** Where a pip, or the animal itself, is likely still to come: 80 %. */
function Ahead({ from, to, pip }: { from: number; to: number; pip: boolean }) {
  return (
    <rect
      x={`${from}%`}
      width={`${Math.max(0.8, to - from)}%`}
      y={MIDDLE - 8}
      height={16}
      rx={3}
      fill={pip ? 'none' : token('faint')}
      stroke={token('soft')}
      strokeWidth={1.5}
      strokeDasharray={pip ? '5 4' : undefined}
    />
  )
}

function Mark({ at, path, filled = false }: { at: string; path: string; filled?: boolean }) {
  return (
    <svg x={at} y={MIDDLE} width={1} height={1} style={{ overflow: 'visible' }} aria-hidden="true">
      <path
        d={path}
        fill={filled ? token('shell') : token('paper')}
        stroke={token('shellInk')}
        strokeWidth={2.4}
        strokeLinejoin="round"
        strokeLinecap="round"
      />
    </svg>
  )
}

/** What the drawing's marks mean, and from when a rescue comes to be considered. */
export function StripLegend() {
  const [from = 0, by = 0] = useRules().data?.hatch.rescue_hours ?? []
  return (
    <Text color="soft" fontSize="small" mt={2}>
      Dots closed, line pipped, halves out; framed, where it is with a chance of 80 %. Amber: {from}{' '}
      to {by} h after the first pip, when help for a closed egg comes to be considered.
    </Text>
  )
}
