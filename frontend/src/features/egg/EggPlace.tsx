import { Box, chakra, Flex, Grid, Span, Stack, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { lazy, Suspense, useState } from 'react'
import { Link, useParams } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import { isNotFound, type Schemas } from '@/shared/api/client'
import { asLook } from '@/shared/api/eggLook'
import { chanceWords } from '@/shared/chance'
import { day, dayAndTime } from '@/shared/dates'
import { LogOf } from '@/shared/log/LogOf'
import { Notes } from '@/shared/notes/Notes'
import { shellWords } from '@/shared/shells/shells'
import { ONE_COLUMN } from '@/shared/theme/tight'
import { Button } from '@/shared/ui/Button'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { developed } from '@/shared/units'
import { Causes } from './Causes'
import { EvidenceList } from './EvidenceList'
import { PhotosByDay } from './PhotosByDay'
import { eggQuery } from './queries'
import { chancesAhead } from './words'

const AsLaidForm = lazy(() =>
  import('./AsLaid').then(({ AsLaidForm }) => ({ default: AsLaidForm })),
)

type Page = Schemas['EggPageResponse']

/** One egg: how it stands and by what evidence, what would settle it, its history and photos. */
export function Component() {
  const { code = '', number = '' } = useParams()
  const query = useQuery(eggQuery(code, number))
  const page = query.data
  const [correcting, setCorrecting] = useState(false)
  if (!page || isNotFound(query.error)) return <Waiting problem={query.error?.message} />
  const { egg } = page
  return (
    <Stack gap={8}>
      <Flex align="flex-end" gap={4} wrap="wrap">
        <div>
          <Title>
            {egg.slug ? 'Slug' : 'Egg'} {egg.number}
          </Title>
          <Text color="soft" mt={1}>
            <Link to={`/clutches/${page.code}`}>
              <Span textDecoration="underline" textUnderlineOffset="3px">
                {page.code}
              </Span>
            </Link>{' '}
            of {page.dam}; day {page.day}, {developed(page.fraction)}; {shellWords(egg.shells)}{' '}
            shell
            {egg.mass_g !== null && `, ${egg.mass_g} g`}
          </Text>
        </div>
        <Flex marginStart={{ md: 'auto' }} gap={2}>
          <Button asChild>
            <Link to={`/round/${encodeURIComponent(page.box)}`}>Open its box</Link>
          </Button>
          <Button
            type="button"
            aria-expanded={correcting}
            onClick={() => setCorrecting(!correcting)}
          >
            Edit lay day
          </Button>
        </Flex>
      </Flex>
      {correcting && (
        <Suspense fallback={<Waiting />}>
          <AsLaidForm code={page.code} number={egg.number} onDone={() => setCorrecting(false)} />
        </Suspense>
      )}
      <Grid
        templateColumns={{ base: '1fr', lg: '18.75rem 1fr' }}
        columnGap={12}
        rowGap={6}
        alignItems="start"
      >
        <Stack align="center" gap={3}>
          <EggDrawing egg={asLook(egg)} size={220} day={page.day} />
          <Dents page={page} />
        </Stack>
        <Standing page={page} />
      </Grid>
      <section aria-labelledby="photos">
        <Heading id="photos">Photos by day</Heading>
        <PhotosByDay page={page} />
      </section>
      <section aria-labelledby="notes">
        <Heading id="notes">Notes</Heading>
        <Notes about={page.id} />
      </section>
      <section aria-labelledby="history">
        <Heading id="history">What was seen</Heading>
        <History moments={page.history} />
      </section>
      <section aria-labelledby="log">
        <Heading id="log">Log</Heading>
        <LogOf about={page.id} />
      </section>
    </Stack>
  )
}

function Dents({ page }: { page: Page }) {
  const { egg } = page
  if (egg.slug) return <p>Infertile: nothing to judge.</p>
  const wide = page.box_scope === 'box' && (egg.excess ?? 0) > 0
  return (
    <Text textAlign="center">
      {egg.advice ?? 'Not looked at yet.'}{' '}
      <Span color="soft">
        Normal at {developed(page.fraction)}: up to {page.allowed_words}.
        {wide &&
          ` ${page.early_eggs.length} of ${page.live_eggs} eggs are early, so the box is to blame and no egg.`}
      </Span>{' '}
      <Link to="/settings/numbers#dents.1">
        <Span color="yolkInk" textDecoration="underline">
          The rule
        </Span>
      </Link>
    </Text>
  )
}

function Standing({ page }: { page: Page }) {
  const { egg, standing } = page
  if (egg.removed_at) {
    return <p>Taken out of its box on {day(egg.removed_at)}. What was seen of it stays below.</p>
  }
  if (egg.pipped_at) return <p>Pipped on {dayAndTime(egg.pipped_at)}: it lives.</p>
  if (!standing) return null
  const trouble = standing.standing === 'failing' || standing.standing === 'probably lost'
  return (
    <section aria-labelledby="standing">
      <Heading id="standing">
        <Span color={trouble ? 'vessel' : 'ink'}>
          {standing.standing[0]?.toUpperCase()}
          {standing.standing.slice(1)}:
        </Span>
        <Span color="soft" fontWeight="medium">
          {' '}
          {chanceWords(standing.alive)}
        </Span>
      </Heading>
      <Text fontSize="lead" mb={3}>
        {chancesAhead(standing)}
      </Text>
      <EvidenceList
        standing={standing}
        thresholds={page.thresholds}
        dependence={page.dependence}
        closedEggs={page.closed_eggs}
        taughtBy={page.taught_by}
        asOf={page.as_of}
      />
      {egg.settles && (
        <Box mt={5}>
          <Notice label={settlesWhen(egg.settles.from_at, page.as_of)}>
            {egg.settles.text}{' '}
            <Link to="/settings/numbers#Rounds">
              <Span color="yolkInk" textDecoration="underline">
                Why then?
              </Span>
            </Link>
          </Notice>
        </Box>
      )}
      {egg.causes.length > 0 && <Causes causes={egg.causes} />}
      <Text color="soft" mt={4} fontSize="small">
        Only you declare a fate; while it might live it stays in.
      </Text>
    </section>
  )
}

function settlesWhen(from: string, now: string): string {
  return Date.parse(from) <= Date.parse(now)
    ? 'To settle it, now'
    : `To settle it, from ${day(from)}`
}

function History({ moments }: { moments: Page['history'] }) {
  if (moments.length === 0) return <Text color="soft">Nothing yet.</Text>
  return (
    <ol>
      {moments.map((moment, i) => (
        <chakra.li
          key={`${moment.at}-${moment.kind}-${i}`}
          display="grid"
          gridTemplateColumns={{ base: '7em 3.2em 1fr', md: '8em 4em 1fr' }}
          css={ONE_COLUMN}
          gap={3}
          minHeight="2.375rem"
          alignItems="center"
          borderTop="1px solid"
          borderColor="line"
        >
          <chakra.time dateTime={moment.at} color="soft">
            {dayAndTime(moment.at)}
          </chakra.time>
          <Span color="soft">{Math.round(moment.development * 100)} %</Span>
          <span>{moment.text}</span>
        </chakra.li>
      ))}
    </ol>
  )
}
