import { Box, chakra, Grid, Span, Text } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import { RELIABILITY_REM } from '@/shared/charts/reliability'
import { counted } from '@/shared/counted'
import { day } from '@/shared/dates'
import { Pick } from '@/shared/ui/Pick'
import { Heading } from '@/shared/ui/page'
import { percent } from '@/shared/units'
import { type Progress, useProgress } from '../queries'
import { deckName } from './words'

// The chart's script is large, and only this place needs it.
const ReliabilityChart = lazy(() =>
  import('@/shared/charts/ReliabilityChart').then((module) => ({
    default: module.ReliabilityChart,
  })),
)

/** Signs listed: those most mistaken. */
const SIGNS = 8

/** What judging was worth: chances against the truth, alarms and misses, sign by sign, by week. */
export function Doing({ decks }: { decks: string[] }) {
  const [deck, setDeck] = useState('')
  const progress = useProgress(deck || null)
  const told = progress.data
  return (
    <section aria-labelledby="doing">
      <Heading id="doing">How you are doing</Heading>
      <Box maxWidth="20rem" mb={4}>
        <Pick
          label="Deck"
          options={[
            { value: '', label: 'All decks' },
            ...decks.map((one) => ({ value: one, label: deckName(one) })),
          ]}
          value={deck}
          onPick={(chosen) => setDeck(chosen ?? '')}
        />
      </Box>
      {told && told.tally.eggs === 0 && <p>None of this deck was judged yet.</p>}
      {told && told.tally.eggs > 0 && (
        <Grid
          templateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }}
          columnGap={10}
          rowGap={8}
        >
          <div>
            <chakra.h3 fontWeight="bold">Chances said, and what was true</chakra.h3>
            <Text color="soft" mb={2}>
              Across what you said, up how many lived. On the line you were right.
            </Text>
            <Suspense fallback={<Box height={`${RELIABILITY_REM}rem`} />}>
              <ReliabilityChart bins={told.bins} />
            </Suspense>
            <ul aria-label="Chances said, and what was true">
              {told.bins.map(({ eggs, said, came }) => (
                <li key={said}>
                  When you said about {percent(said)}, {came} of {eggs} lived.
                </li>
              ))}
            </ul>
          </div>
          <div>
            <Tally told={told} />
            <Signs signs={told.signs} />
            <Weeks weeks={told.weeks} />
          </div>
        </Grid>
      )}
    </section>
  )
}

function Tally({ told: { tally } }: { told: Progress }) {
  const dead = tally.eggs - tally.alive
  return (
    <Box mb={5}>
      <Text fontSize="large">
        Of {counted(tally.alive, 'live egg')} you took {tally.false_alarms} for dead; of {dead} dead
        you missed {tally.missed}.
      </Text>
      <Text mt={1}>
        Stage judged rightly {tally.stages_right} of {tally.eggs} times.
        {tally.could_save > 0 &&
          ` ${tally.saved} of ${tally.could_save} that could be saved you saved.`}
        {tally.lost > 0 && ` ${tally.lost} were lost by what you chose.`}
      </Text>
    </Box>
  )
}

function Signs({ signs }: { signs: Progress['signs'] }) {
  const mistaken = signs.filter((sign) => sign.false_alarms + sign.missed > 0).slice(0, SIGNS)
  if (mistaken.length === 0) return null
  return (
    <Box mb={5}>
      <chakra.h3 fontWeight="bold">Signs that misled you</chakra.h3>
      <ul>
        {mistaken.map(({ sign, eggs, alive, false_alarms, missed }) => (
          <chakra.li key={sign} py={1} borderTop="1px solid" borderColor="line">
            <Span fontWeight="semibold">{sign}</Span>{' '}
            <Span color="soft">
              in {eggs}, {alive} lived: {counted(false_alarms, 'false alarm')}, {missed} missed
            </Span>
          </chakra.li>
        ))}
      </ul>
    </Box>
  )
}

function Weeks({ weeks }: { weeks: Progress['weeks'] }) {
  if (weeks.length < 2) return null
  return (
    <Box>
      <chakra.h3 fontWeight="bold">Week by week</chakra.h3>
      <Text color="soft" fontSize="small">
        Mean squared error of your chances: 0 is always right and sure, 0.25 is saying 50 % of all.
      </Text>
      <ul>
        {weeks.map(({ since, eggs, brier }) => (
          <chakra.li key={since} py={1} borderTop="1px solid" borderColor="line">
            from {day(since)}: <strong>{brier.toFixed(2)}</strong>{' '}
            <Span color="soft">of {counted(eggs, 'egg')}</Span>
          </chakra.li>
        ))}
      </ul>
    </Box>
  )
}
