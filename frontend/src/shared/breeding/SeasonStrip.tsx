import { chakra, Flex, Span, Strong } from '@chakra-ui/react'
import { addDays, eachMonthOfInterval, format } from 'date-fns'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { day, dayRange } from '@/shared/dates'
import { token } from '@/shared/theme/token'
import { Few } from '@/shared/ui/Few'
import { useWidth } from '@/shared/ui/useWidth'

type Season = Schemas['LaySeasonResponse']
type Dam = Schemas['DamLaySeasonResponse']
type Clutch = Schemas['ClutchInBoxResponse']

const ROW = 34
const HEAD = 24
const MIDDLE = ROW / 2

/** Dams shown before somebody asks for all. */
const ROWS = 8

/** Days shown before and after today. */
const BACK = 200
const AHEAD = 95

/** A line for each dam: pairings, locks and signs behind, lay and pip windows ahead. */
export function SeasonStrip({ season, clutches }: { season: Season; clutches: Clutch[] }) {
  const [ref, width] = useWidth<HTMLDivElement>()
  const now = new Date(season.as_of)
  const from = addDays(now, -BACK)
  const to = addDays(now, AHEAD)
  const x = (moment: string | Date) =>
    ((new Date(moment).getTime() - from.getTime()) / (to.getTime() - from.getTime())) * width
  const months = eachMonthOfInterval({ start: from, end: to }).slice(1)
  return (
    <div>
      <div ref={ref}>
        <svg width={width} height={HEAD} aria-hidden style={{ display: 'block' }}>
          {months.map((month, i) => (
            <text
              key={month.getTime()}
              x={x(month) + 3}
              y={16}
              fontSize={13}
              fill={token('soft')}
              display={width < 500 && i % 2 ? 'none' : undefined}
            >
              {format(month, 'MMM')}
            </text>
          ))}
        </svg>
        <Few most={ROWS} what="dams of the season" list={(shown) => <ul>{shown}</ul>}>
          {season.dams.map((dam) => {
            const own = clutches.filter((c) => dam.clutches.some((d) => d.code === c.code))
            return (
              <chakra.li key={dam.dam} borderTop="1px solid" borderColor="line" pt={2}>
                <Flex gap={3} wrap="wrap" align="baseline">
                  <Link to={`/animals/${dam.dam}`}>
                    <Strong _hover={{ textDecoration: 'underline' }}>{dam.name}</Strong>
                  </Link>
                  <Span color="soft" fontSize="small">
                    {inWords(dam, own)}
                  </Span>
                </Flex>
                <svg width={width} height={ROW} aria-hidden style={{ display: 'block' }}>
                  {months.map((month) => (
                    <line
                      key={month.getTime()}
                      x1={x(month)}
                      x2={x(month)}
                      y2={ROW}
                      stroke={token('line')}
                    />
                  ))}
                  <Row dam={dam} clutches={own} now={now} x={x} />
                  <line
                    x1={x(now)}
                    x2={x(now)}
                    y2={ROW}
                    stroke={token('yolkInk')}
                    strokeWidth={3}
                  />
                </svg>
              </chakra.li>
            )
          })}
        </Few>
      </div>
      <Legend />
    </div>
  )
}

function Row({
  dam,
  clutches,
  now,
  x,
}: {
  dam: Dam
  clutches: Clutch[]
  now: Date
  x: (moment: string | Date) => number
}) {
  const window = dam.forecast?.window
  return (
    <g>
      {dam.pairings.map((pairing) => (
        <g key={pairing.id}>
          <rect
            x={x(pairing.start)}
            y={MIDDLE - 4}
            width={Math.max(5, x(pairing.until ?? now) - x(pairing.start))}
            height={8}
            fill={token('soft')}
          />
          {pairing.locks.map((lock) => (
            <line
              key={lock}
              x1={x(lock)}
              x2={x(lock)}
              y1={MIDDLE - 12}
              y2={MIDDLE + 12}
              stroke={token('ink')}
              strokeWidth={2.5}
            />
          ))}
        </g>
      ))}
      {dam.signs.map((sign) => (
        <SignMark key={sign.sign + sign.seen_at} sign={sign.sign} at={x(sign.seen_at)} />
      ))}
      {window && (
        <Window
          p10={x(window.p10)}
          p25={x(window.p25)}
          p50={x(window.p50)}
          p75={x(window.p75)}
          p90={x(window.p90)}
          colour={token('plume2')}
        />
      )}
      {dam.clutches.map((clutch) => (
        <ellipse
          key={clutch.code}
          cx={x(clutch.laid_at)}
          cy={MIDDLE}
          rx={10}
          ry={7}
          fill={token('shell')}
          stroke={token('shellInk')}
          strokeWidth={2}
        />
      ))}
      {clutches.map(
        ({ code, typical_pip: pip }) =>
          pip && (
            <Window
              key={code}
              p10={x(pip.p10)}
              p25={x(pip.p25)}
              p50={x(pip.p50)}
              p75={x(pip.p75)}
              p90={x(pip.p90)}
              colour={token('plume')}
            />
          ),
      )}
    </g>
  )
}

/** 80 % pale, 50 % full, the middle as a notch. */
function Window(at: {
  p10: number
  p25: number
  p50: number
  p75: number
  p90: number
  colour: string
}) {
  return (
    <g fill={at.colour}>
      <rect
        x={at.p10}
        y={MIDDLE - 9}
        width={Math.max(3, at.p90 - at.p10)}
        height={18}
        opacity={0.35}
      />
      <rect
        x={at.p25}
        y={MIDDLE - 9}
        width={Math.max(2, at.p75 - at.p25)}
        height={18}
        opacity={0.7}
      />
      <rect x={at.p50 - 1} y={MIDDLE - 13} width={2} height={26} />
    </g>
  )
}

function SignMark({ sign, at }: { sign: Schemas['Sign']; at: number }) {
  const line = { stroke: token('ink'), strokeWidth: 2, fill: token('paper') }
  if (sign === 'ovulation') return <circle cx={at} cy={MIDDLE} r={7} {...line} />
  if (sign === 'ill') {
    return <path d={`M${at} ${MIDDLE - 8}V${MIDDLE + 8}M${at - 8} ${MIDDLE}H${at + 8}`} {...line} />
  }
  if (sign === 'pre-lay shed') {
    return <path d={`M${at} ${MIDDLE - 9}L${at + 9} ${MIDDLE + 7}H${at - 9}Z`} {...line} />
  }
  return (
    <path
      d={`M${at - 5} ${MIDDLE - 5}L${at + 5} ${MIDDLE + 5}M${at + 5} ${MIDDLE - 5}L${at - 5} ${MIDDLE + 5}`}
      {...line}
    />
  )
}

const LEGEND: [string, React.ReactNode][] = [
  ['with a sire', <rect key="p" x={2} y={MIDDLE - 4} width={22} height={8} fill={token('soft')} />],
  [
    'lock',
    <line
      key="l"
      x1={13}
      x2={13}
      y1={MIDDLE - 12}
      y2={MIDDLE + 12}
      stroke={token('ink')}
      strokeWidth={2.5}
    />,
  ],
  ['off food', <SignMark key="f" sign="off food" at={13} />],
  ['ovulation', <SignMark key="o" sign="ovulation" at={13} />],
  ['pre-lay shed', <SignMark key="s" sign="pre-lay shed" at={13} />],
  ['ill', <SignMark key="i" sign="ill" at={13} />],
  [
    'lay window',
    <Window key="w" p10={1} p25={6} p50={12} p75={18} p90={25} colour={token('plume2')} />,
  ],
  [
    'laid',
    <ellipse
      key="e"
      cx={13}
      cy={MIDDLE}
      rx={10}
      ry={7}
      fill={token('shell')}
      stroke={token('shellInk')}
      strokeWidth={2}
    />,
  ],
  [
    'pip window',
    <Window key="h" p10={1} p25={6} p50={12} p75={18} p90={25} colour={token('plume')} />,
  ],
]

function Legend() {
  return (
    <chakra.ul
      display="flex"
      flexWrap="wrap"
      columnGap={5}
      rowGap={0}
      mt={2}
      color="soft"
      fontSize="small"
      aria-hidden
    >
      {LEGEND.map(([name, drawing]) => (
        <chakra.li key={name} display="flex" alignItems="center" gap={2}>
          <svg width={26} height={ROW} style={{ display: 'block' }} aria-hidden>
            {drawing}
          </svg>
          {name}
        </chakra.li>
      ))}
    </chakra.ul>
  )
}

/** The row as a sentence, for every reader. */
function inWords(dam: Dam, clutches: Clutch[]): string {
  const { forecast } = dam
  if (dam.laying) return 'laying now'
  if (forecast?.window) return `lays ${dayRange(forecast.window.p10, forecast.window.p90)}`
  if (forecast) return 'overdue: feel for eggs'
  const clutch = clutches.at(-1)
  if (clutch?.typical_pip) {
    return `${clutch.code}, pips ${dayRange(clutch.typical_pip.p10, clutch.typical_pip.p90)}`
  }
  const laid = dam.clutches.at(-1)
  if (laid) return `laid ${laid.code} on ${day(laid.laid_at)}`
  const last = dam.pairings.at(-1)
  if (last && !last.until) return `with ${last.sire} since ${day(last.start)}`
  return last ? `last with ${last.sire} ${day(last.start)}` : ''
}
