import { Box, chakra, Flex, Grid, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { lazy, type ReactNode, Suspense } from 'react'
import { Link, useParams } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { isNotFound } from '@/shared/api/client'
import { useAnimal } from '@/shared/api/queries'
import { LayWindow } from '@/shared/breeding/LayWindow'
import { Preparations } from '@/shared/breeding/Preparations'
import { CareList } from '@/shared/dam-care/CareList'
import { day, dayAndTime, fullDay } from '@/shared/dates'
import { LogOf } from '@/shared/log/LogOf'
import { Notes } from '@/shared/notes/Notes'
import { Photos } from '@/shared/photos/Photos'
import { traitsInWords } from '@/shared/traits'
import { Button } from '@/shared/ui/Button'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { MealForm, SignForm, VisitForm, WeightForm } from './Recording'

/** px kept for the chart until its script is here, so that nothing moves away under a thumb. */
const CHART_HEIGHT = 230

const WeightChart = lazy(() =>
  import('./WeightChart').then(({ WeightChart }) => ({ default: WeightChart })),
)

type Page = Schemas['AnimalPageResponse']

/** One animal: what it weighs and eats, its clutches, and where a dam is in her season. */
export function Component() {
  const { animal: id = '' } = useParams()
  const known = Number.isSafeInteger(Number(id))
  const query = useAnimal(known ? Number(id) : 0)
  const page = query.data
  if (!known) return <Waiting problem="There is no such animal." />
  if (!page || isNotFound(query.error)) return <Waiting problem={query.error?.message} />
  const { animal } = page
  return (
    <Stack gap={8}>
      <Flex wrap="wrap" align="flex-end" columnGap={6} rowGap={3}>
        <div>
          <Title>{animal.name}</Title>
          <Text color="soft" mt={1}>
            {[
              animal.role,
              animal.code,
              animal.retired && 'retired',
              traitsInWords(animal),
              page.parents && `of ${page.parents}`,
            ]
              .filter(Boolean)
              .join(', ')}
          </Text>
          {page.traits_text && <Text>{page.traits_text}</Text>}
        </div>
        <Flex marginStart={{ md: 'auto' }} gap={2}>
          {animal.role === 'dam' && (
            <Button asChild>
              <Link to={`/lay-day?dam=${encodeURIComponent(animal.name)}`}>She is laying</Link>
            </Button>
          )}
          <Button asChild>
            <Link to={`/animals/${animal.id}/correct`}>Correct</Link>
          </Button>
        </Flex>
      </Flex>

      {page.season?.forecast && (
        <section aria-labelledby="laying">
          <Heading id="laying">Laying</Heading>
          <LayWindow forecast={page.season.forecast} />
          <Preparations dam={page.season} />
        </section>
      )}
      {page.after_laying && (
        <section aria-labelledby="after">
          <Heading id="after">After laying {page.after_laying.clutch}</Heading>
          <CareList dam={page.after_laying} />
        </section>
      )}

      <Grid templateColumns={{ base: '1fr', lg: '3fr 2fr' }} gap={10}>
        <chakra.section aria-labelledby="weights" minWidth={0}>
          <Heading id="weights">Weights</Heading>
          {page.weights.length === 0 ? (
            <Text color="soft">Not weighed yet.</Text>
          ) : (
            <Suspense
              fallback={
                <Box height={`${CHART_HEIGHT}px`}>
                  <Waiting />
                </Box>
              }
            >
              <WeightChart
                height={CHART_HEIGHT}
                weights={page.weights}
                laidAt={page.clutches.map((clutch) => clutch.laid_at)}
                lightest={page.lightest_g}
              />
            </Suspense>
          )}
        </chakra.section>
        <chakra.section aria-label="Record a weight" minWidth={0}>
          <Box pt={{ lg: '2.25rem' }}>
            <WeightForm animal={animal.id} />
          </Box>
        </chakra.section>
        <chakra.section aria-labelledby="meals" minWidth={0}>
          <Heading id="meals">Meals</Heading>
          <Meals page={page} />
        </chakra.section>
        <chakra.section aria-label="Record a meal" minWidth={0}>
          <Box pt={{ lg: '2.25rem' }}>
            <MealForm animal={animal.id} />
          </Box>
        </chakra.section>
        {page.season && (
          <>
            <chakra.section aria-labelledby="pairings" minWidth={0}>
              <Heading id="pairings">Pairings and signs</Heading>
              <Pairings season={page.season} />
            </chakra.section>
            <chakra.section aria-label="Record a sign or a visit" minWidth={0}>
              <Box pt={{ lg: '2.25rem' }}>
                <SignForm dam={animal.id} />
                <VisitForm dam={animal.id} />
              </Box>
            </chakra.section>
          </>
        )}
      </Grid>

      <section aria-labelledby="clutches">
        <Heading id="clutches">Clutches</Heading>
        <Clutches page={page} />
      </section>
      <section aria-labelledby="notes">
        <Heading id="notes">Notes</Heading>
        <Notes about={animal.id} />
      </section>
      <section aria-labelledby="photos">
        <Heading id="photos">Photos</Heading>
        <Photos photos={page.photos} of={{ owner: animal.id }} />
      </section>
      <section aria-labelledby="log">
        <Heading id="log">Log</Heading>
        <LogOf about={animal.id} />
      </section>
    </Stack>
  )
}

function Meals({ page }: { page: Page }) {
  if (page.meals.length === 0) return <Text color="soft">None recorded.</Text>
  return (
    <ul>
      {[...page.meals]
        .reverse()
        .slice(0, 8)
        .map((meal) => (
          <DatedLine key={meal.at} at={dayAndTime(meal.at)}>
            <Span fontWeight={meal.taken ? 'medium' : 'bold'}>
              {meal.taken ? 'taken' : 'refused'}
              {meal.prey && `, ${meal.prey}`}
              {meal.mass_g !== null && `, ${meal.mass_g} g`}
            </Span>
          </DatedLine>
        ))}
    </ul>
  )
}

function Pairings({ season }: { season: Schemas['DamLaySeasonResponse'] }) {
  const events = [
    ...season.pairings.map((p) => ({
      id: p.id,
      at: p.start,
      text: `${p.sire}${p.until ? ` until ${day(p.until)}` : ', together now'}${
        p.locks.length ? `, ${p.locks.length === 1 ? '1 lock' : `${p.locks.length} locks`}` : ''
      }`,
    })),
    ...season.signs.map((s) => ({ id: null, at: s.seen_at, text: s.sign })),
  ].sort((a, b) => b.at.localeCompare(a.at))
  if (events.length === 0) return <Text color="soft">None recorded.</Text>
  return (
    <ul>
      {events.map((event) => (
        <DatedLine key={event.at + event.text} at={fullDay(event.at)}>
          <Span display="block">{event.text}</Span>
          {event.id !== null && <Notes about={event.id} quiet />}
        </DatedLine>
      ))}
    </ul>
  )
}

function DatedLine({ at, children }: { at: string; children: ReactNode }) {
  return (
    <chakra.li
      display="flex"
      gap={4}
      minHeight="2.5rem"
      alignItems="center"
      borderTop="1px solid"
      borderColor="line"
    >
      <Span color="soft" width="7.5em" flexShrink={0}>
        {at}
      </Span>
      <div>{children}</div>
    </chakra.li>
  )
}

function Clutches({ page }: { page: Page }) {
  if (page.clutches.length === 0) return <Text color="soft">None recorded.</Text>
  return (
    <ul>
      {[...page.clutches].reverse().map((clutch) => (
        <li key={clutch.code}>
          <Link to={`/clutches/${clutch.code}`}>
            <Grid
              templateColumns="5.625rem 4.375rem 1fr 1fr"
              minHeight="thumb"
              alignItems="center"
              borderTop="1px solid"
              borderColor="line"
              _hover={{ bg: 'faint' }}
            >
              <Strong fontSize="lead">{clutch.code}</Strong>
              <Strong>{clutch.count}</Strong>
              <span>{clutch.mate ?? ''}</span>
              <Span color="soft">{fullDay(clutch.laid_at)}</Span>
            </Grid>
          </Link>
        </li>
      ))}
    </ul>
  )
}
