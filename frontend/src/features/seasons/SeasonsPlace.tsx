import { Box, chakra, Grid, HStack, Span, Stack, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { Years } from '@/shared/breeding/Years'
import { counted } from '@/shared/counted'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { type Season, useSeasons } from './queries'
import { Rates } from './Rates'
import { linkOf } from './rates'
import { Slugs } from './Slugs'
import { Standings } from './Standings'

/** What the seasons taught: first in sentences, then the numbers they rest on. */
export function Component() {
  const [year, setYear] = useState<number | null>(null)
  const query = useSeasons(year)
  const season = query.data
  if (!season) return <Waiting problem={query.error?.message} />
  return (
    <Stack gap={12}>
      <HStack gap={4} wrap="wrap">
        <Title>Seasons</Title>
        {season.years.length > 0 && (
          <Years years={[null, ...season.years]} chosen={year} onChoose={setYear} />
        )}
      </HStack>
      {season.uncounted > 0 && (
        <Text role="status" fontWeight="semibold">
          Being counted: {season.uncounted} more {season.uncounted === 1 ? 'clutch' : 'clutches'} to
          go. Until then the numbers below are of the others.
        </Text>
      )}
      {season.clutches === 0 && season.uncounted === 0 && (
        <Text maxWidth="36em">
          No clutch is closed yet. Once you have said at Hatch watch what became of its eggs and
          closed it, it is counted here: what hatched, what was lost to what, and how good the
          forecasts were. Clutches of the years before come in by their cards, at{' '}
          <Link to="/old-records">
            <Span textDecoration="underline">Old records</Span>
          </Link>
          .
        </Text>
      )}
      {season.clutches > 0 && (
        <>
          {season.past > 0 && (
            <Text color="soft" maxWidth="52em">
              {season.past === season.clutches ? 'All' : season.past} of these {season.clutches}{' '}
              clutches are of before Sandboa: they count in the rates and the slugs, but nobody
              recorded what became of their eggs one by one.{' '}
              <Link to="/old-records">
                <Span textDecoration="underline">Old records</Span>
              </Link>
            </Text>
          )}
          {season.uncounted === 0 && <WhatItTaught season={season} />}
          <Rates season={season} />
          <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} gap={10}>
            <Costs season={season} />
            <Stack gap={10}>
              <Forecasts season={season} />
              <Standings season={season} />
            </Stack>
          </Grid>
          <Slugs season={season} />
        </>
      )}
    </Stack>
  )
}

function WhatItTaught({ season }: { season: Season }) {
  return (
    <section aria-labelledby="taught">
      <Heading id="taught">
        {season.year ? `What ${season.year} taught` : 'What the seasons taught'}
      </Heading>
      <chakra.ul maxWidth="52em">
        {season.findings.map(({ text, number, about }) => (
          <chakra.li
            key={text}
            display="grid"
            gridTemplateColumns={{ base: '1fr', md: '1fr 17.5rem' }}
            columnGap={6}
            py={3}
            borderTop="1.5px solid"
            borderColor="line"
            alignItems="baseline"
          >
            <Span fontSize="large" lineHeight={1.35}>
              {text}
            </Span>
            <Source to={linkOf(about)} words={number} />
          </chakra.li>
        ))}
      </chakra.ul>
    </section>
  )
}

/** The number a sentence rests on, leading to where more of it stands. */
function Source({ to, words }: { to: string; words: string }) {
  const look = (
    <Span color="yolkInk" fontWeight="semibold" textDecoration="underline">
      {words}
    </Span>
  )
  return to.startsWith('#') ? <a href={to}>{look}</a> : <Link to={to}>{look}</Link>
}

/** Eggs by cause: the sums of shares, so that doubt stays in the count. */
function Costs({ season }: { season: Season }) {
  const most = Math.max(...season.costs.map((cost) => cost.eggs), 1)
  const shown = season.costs.filter((cost) => cost.eggs >= 0.1)
  return (
    <section aria-labelledby="losses">
      <Heading id="losses">Losses by cause</Heading>
      {season.waiting > 0 && (
        <Text role="status" mb={2} fontWeight="semibold">
          Being worked out for {season.waiting} more {season.waiting === 1 ? 'clutch' : 'clutches'}:
          the counts still grow.
        </Text>
      )}
      {season.lost === 0 && season.waiting === 0 && <p>No egg was lost.</p>}
      {season.lost > 0 && (
        <>
          <Text mb={2}>
            {counted(season.lost, 'egg')} lost, {season.opened} opened. Each counts by the shares of
            its causes.
          </Text>
          <ul>
            {shown.map(({ cause, eggs, code }) => (
              <chakra.li key={cause} py={2} borderTop="1px solid" borderColor="line">
                <Span display="flex" justifyContent="space-between" gap={3}>
                  <span>
                    {cause}{' '}
                    <Link to={`/losses/${code}`}>
                      <Span color="soft" textDecoration="underline">
                        most in {code}
                      </Span>
                    </Link>
                  </span>
                  <strong>{eggs.toFixed(1)}</strong>
                </Span>
                <Box height="6px" bg="faint" borderRadius="small" mt={1} aria-hidden="true">
                  <Box
                    height="100%"
                    bg={cause === 'unknown' ? 'soft' : 'vessel'}
                    borderRadius="small"
                    style={{ width: `${(100 * eggs) / most}%` }}
                  />
                </Box>
              </chakra.li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

function Forecasts({ season }: { season: Season }) {
  return (
    <section aria-labelledby="forecasts">
      <Heading id="forecasts">Forecasts against what came</Heading>
      {season.scores.length === 0 && (
        <p>
          No forecast of a closed clutch was kept yet. They are kept on days 0, 30 and 50 after lay.
        </p>
      )}
      <ul>
        {season.scores.map((score) => (
          <chakra.li
            key={`${score.day} ${score.first_season}`}
            py={2}
            borderTop="1px solid"
            borderColor="line"
          >
            <strong>{score.day === 0 ? 'On lay day' : `On day ${score.day}`}</strong>
            {score.first_season && ', before any clutch had taught it,'} off by{' '}
            {score.error_days.toFixed(1)} days on average
            {Math.abs(score.bias_days) >= 0.3 &&
              ` (${Math.abs(score.bias_days).toFixed(1)} ${score.bias_days > 0 ? 'too late' : 'too early'})`}
            ; the half window held {score.in_half} of {score.clutches}, the 80 % window{' '}
            {score.in_eighty}.
          </chakra.li>
        ))}
      </ul>
    </section>
  )
}
