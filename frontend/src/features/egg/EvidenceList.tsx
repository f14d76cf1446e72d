import { chakra, Span, Strong, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { counted } from '@/shared/counted'
import { day } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { ago, numbersOf, pushWords, signed } from './words'

type Evidence = Schemas['EvidenceResponse']
type Standing = Schemas['StandingResponse']

/** Every sign with its push, for the egg to the right and against it to the left; and why. */
export function EvidenceList({
  standing,
  thresholds,
  dependence,
  closedEggs,
  taughtBy,
  asOf,
}: {
  standing: Standing
  thresholds: Record<string, number>
  dependence: number
  /** Eggs of the house whose end is known, and how many of them showed each sign. */
  closedEggs: number
  taughtBy: Record<string, number>
  asOf: string
}) {
  const [why, setWhy] = useState(false)
  const lines = [standing.prior, ...standing.evidence]
  const most = Math.max(3, ...lines.map((line) => Math.abs(line.push)))
  return (
    <>
      <ul aria-label="Evidence">
        {lines.map((line) => (
          <Line
            key={line.key}
            line={line}
            most={most}
            why={why}
            dependence={dependence}
            taughtBy={taughtBy[line.key] ?? 0}
            asOf={asOf}
          />
        ))}
      </ul>
      <Button variant="bare" size="small" aria-expanded={why} onClick={() => setWhy(!why)}>
        {why ? 'Without the numbers' : 'Why? With the rule and its numbers'}
      </Button>
      {why && (
        <Text maxWidth="44rem" fontSize="small">
          The egg starts with what lay day's torch showed. It may have died at any time since,
          early, around half or at full term more likely than between. A sign counts against every
          death before it was seen: by its weight times {dependence}, because signs lean on one
          another, and by how much of it a dead egg would have shown by then. The sum is{' '}
          {signed(standing.log_odds)}, which makes {(standing.alive * 100).toFixed(0)} %:{' '}
          {Object.entries(thresholds)
            .map(([name, from]) => `${name} from ${Math.round(from * 100)} %`)
            .join(', ')}
          , below that probably lost. Weights start from keeper practice and our assumption
          {closedEggs > 0
            ? `, moved by ${counted(closedEggs, 'egg')} of this house whose end is known`
            : ', until this house has closed eggs of its own'}
          ;{' '}
          <Link to="/settings/numbers#Standing">
            <Span color="yolkInk" textDecoration="underline">
              change any of them in settings
            </Span>
          </Link>
          .
        </Text>
      )}
    </>
  )
}

function Line({
  line,
  most,
  why,
  dependence,
  taughtBy,
  asOf,
}: {
  line: Evidence
  most: number
  why: boolean
  dependence: number
  taughtBy: number
  asOf: string
}) {
  const share = (Math.abs(line.push) / most) * 50
  const against = line.push < 0
  return (
    <chakra.li
      display="grid"
      gridTemplateColumns={{ base: '1fr 7.75rem', md: 'minmax(0, 1fr) 15.625rem 3.4em' }}
      alignItems="center"
      columnGap={4}
      minHeight="2.875rem"
      borderTop="1px solid"
      borderColor="line"
      color={line.void ? 'soft' : 'ink'}
    >
      <span>
        {line.words[0]?.toUpperCase()}
        {line.words.slice(1)}
        {line.times !== 1 && ` × ${Number(line.times.toFixed(1))}`}
        <Span color="soft" fontSize="small">
          {line.seen_at && ` ${day(line.seen_at)}, ${ago(line.seen_at, asOf)}`}
          {line.void ? `; ${line.void}` : `; ${pushWords(line.push)}`}
        </Span>
        {why && (
          <Link to={`/settings/numbers#${encodeURIComponent(line.key)}`}>
            <Span display="block" color="yolkInk" fontSize="small">
              {numbersOf(line, dependence)}
              {taughtBy > 0 && `; ${taughtBy} of your eggs showed it`}
            </Span>
          </Link>
        )}
      </span>
      <Span
        aria-hidden
        position="relative"
        height="1.25rem"
        borderInline="1.5px solid"
        borderColor="line"
      >
        <Span position="absolute" left="50%" top="-6px" bottom="-6px" width="1.5px" bg="ink" />
        <Span
          position="absolute"
          top={0}
          bottom={0}
          bg={against ? 'vessel' : 'sound'}
          style={{
            width: `${share}%`,
            ...(against ? { right: '50%' } : { left: '50%' }),
          }}
        />
      </Span>
      <Strong hideBelow="md" textAlign="right">
        {line.push === 0 ? '' : signed(line.push)}
      </Strong>
    </chakra.li>
  )
}
