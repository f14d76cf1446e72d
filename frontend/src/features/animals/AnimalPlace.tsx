import { Box, chakra, Grid, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { Link, useParams } from 'react-router'
import { DatedLine } from '@/shared/animals/DatedLine'
import { Meals } from '@/shared/animals/Meals'
import { Weights } from '@/shared/animals/Weights'
import type { Schemas } from '@/shared/api/client'
import { isNotFound } from '@/shared/api/client'
import { useAnimal } from '@/shared/api/queries'
import { LayWindow } from '@/shared/breeding/LayWindow'
import { Preparations } from '@/shared/breeding/Preparations'
import { CareList } from '@/shared/dam-care/CareList'
import { day, fullDay } from '@/shared/dates'
import { LogOf } from '@/shared/log/LogOf'
import { Notes } from '@/shared/notes/Notes'
import { Photos } from '@/shared/photos/Photos'
import { Heading, Waiting } from '@/shared/ui/page'
import { AnimalHead } from './AnimalHead'
import { Proofs } from './Proofs'
import { MealForm, SignForm, VisitForm, WeightForm } from './Recording'

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
      <AnimalHead page={page} />
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
          <Weights
            weights={page.weights}
            laidAt={page.clutches.map((clutch) => clutch.laid_at)}
            lightest={page.lightest_g}
          />
        </chakra.section>
        <chakra.section aria-label="Record a weight" minWidth={0}>
          <Box pt={{ lg: '2.25rem' }}>
            <WeightForm animal={animal.id} />
          </Box>
        </chakra.section>
        <chakra.section aria-labelledby="meals" minWidth={0}>
          <Heading id="meals">Meals</Heading>
          <Meals meals={page.meals} />
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

      {page.proofs.length > 0 && (
        <section aria-labelledby="proofs">
          <Heading id="proofs">What its hatchlings prove</Heading>
          <Proofs proofs={page.proofs} />
        </section>
      )}
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

function Clutches({ page }: { page: Page }) {
  if (page.clutches.length === 0) return <Text color="soft">None recorded.</Text>
  return (
    <ul>
      {[...page.clutches].reverse().map((clutch) => (
        <li key={clutch.laid_at}>
          <Link to={clutch.past ? '/old-records' : `/clutches/${clutch.code}`}>
            <Grid
              templateColumns="5.625rem 4.375rem 1fr 1fr"
              minHeight="thumb"
              alignItems="center"
              borderTop="1px solid"
              borderColor="line"
              _hover={{ bg: 'faint' }}
            >
              <Strong fontSize="lead">{clutch.code ?? 'card'}</Strong>
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
