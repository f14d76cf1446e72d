import { chakra, Flex, Grid, HStack, Span, Stack, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'
import { DatedLine } from '@/shared/animals/DatedLine'
import { Meals } from '@/shared/animals/Meals'
import { Weights } from '@/shared/animals/Weights'
import { isNotFound, type Schemas } from '@/shared/api/client'
import { dayAndTime, fullDay } from '@/shared/dates'
import { hatchlingQuery } from '@/shared/hatchlings/queries'
import { comesNext, hatchlingInWords, hatchlingTitle, whereabouts } from '@/shared/hatchlings/words'
import { LogOf } from '@/shared/log/LogOf'
import { Notes } from '@/shared/notes/Notes'
import { Photos, Picture } from '@/shared/photos/Photos'
import { sentence } from '@/shared/sentence'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { HatchlingActs } from './HatchlingActs'

type Page = Schemas['HatchlingPageResponse']

/** One hatchling: what is due, what it weighs and eats, and where it goes from here. */
export function Component() {
  const { hatchling: id = '' } = useParams()
  const known = Number.isSafeInteger(Number(id)) && Number(id) > 0
  const query = useQuery({ ...hatchlingQuery(Number(id)), enabled: known })
  if (!known) return <Waiting problem="There is no such hatchling." />
  if (!query.data || isNotFound(query.error)) return <Waiting problem={query.error?.message} />
  return <Shown key={id} page={query.data} />
}

function Shown({ page }: { page: Page }) {
  const { hatchling } = page
  const away = whereabouts(hatchling)
  return (
    <Stack gap={8}>
      <div>
        <Title>{hatchlingTitle(hatchling)}</Title>
        <Text color="soft" mt={1}>
          <Lineage page={page} />
        </Text>
        <Text fontSize="lead" mt={2}>
          {sentence(hatchlingInWords(hatchling))}
          {hatchling.tub && ` Tub ${hatchling.tub.name}.`}
        </Text>
        {!away && <Text>{comesNext(hatchling)}</Text>}
        {away && <Whereabouts hatchling={hatchling} />}
        {hatchling.due && (
          <Notice label="Due">{sentence(`${hatchling.name} ${hatchling.due.words}`)}</Notice>
        )}
      </div>
      {!hatchling.animal && <HatchlingActs hatchling={hatchling} />}
      <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} gap={10}>
        <chakra.section aria-labelledby="weights" minWidth={0}>
          <Heading id="weights">Weights</Heading>
          <Weights weights={hatchling.weights} />
        </chakra.section>
        <chakra.section aria-labelledby="meals" minWidth={0}>
          <Heading id="meals">Meals</Heading>
          <Meals meals={hatchling.meals} />
        </chakra.section>
      </Grid>
      <section aria-labelledby="sheds">
        <Heading id="sheds">Sheds</Heading>
        {hatchling.sheds.length === 0 && <Text color="soft">None seen yet.</Text>}
        <ul>
          {[...hatchling.sheds].reverse().map((seen) => (
            <DatedLine key={seen} at={fullDay(seen)}>
              {seen === hatchling.sheds[0] ? 'first shed' : 'shed'}
            </DatedLine>
          ))}
        </ul>
      </section>
      <section aria-labelledby="notes">
        <Heading id="notes">Notes</Heading>
        <Notes about={hatchling.id} />
      </section>
      <section aria-labelledby="photos">
        <Heading id="photos">Photos</Heading>
        <Photos photos={page.photos} of={{ owner: hatchling.id }} />
      </section>
      {page.egg_photos.length > 0 && (
        <section aria-labelledby="egg-photos">
          <Heading id="egg-photos">Of its egg</Heading>
          <HStack wrap="wrap" gap={2}>
            {page.egg_photos.map((photo) => (
              <Picture key={photo.id} photo={photo} />
            ))}
          </HStack>
        </section>
      )}
      <section aria-labelledby="log">
        <Heading id="log">Log</Heading>
        <LogOf about={hatchling.id} />
      </section>
    </Stack>
  )
}

function Lineage({ page }: { page: Page }) {
  const { hatchling, dam, sire } = page
  return (
    <>
      Out {dayAndTime(hatchling.out_at)} of{' '}
      <Link to={`/clutches/${hatchling.clutch}/eggs/${hatchling.egg}`}>
        <Underlined>
          egg {hatchling.clutch}/{hatchling.egg}
        </Underlined>
      </Link>
      , by{' '}
      <Link to={`/animals/${page.dam_id}`}>
        <Underlined>{dam}</Underlined>
      </Link>
      {sire && (
        <>
          {' and '}
          <Link to={`/animals/${page.sire_id}`}>
            <Underlined>{sire}</Underlined>
          </Link>
        </>
      )}
      .
    </>
  )
}

function Whereabouts({ hatchling }: { hatchling: Page['hatchling'] }) {
  const { departure } = hatchling
  return (
    <Flex gap={3} wrap="wrap" align="baseline">
      <Text fontWeight="semibold">
        {sentence(whereabouts(hatchling))}
        {departure?.note && ` ${sentence(departure.note)}`}
      </Text>
      {hatchling.animal && (
        <Link to={`/animals/${hatchling.animal}`}>
          <Underlined>To {hatchling.animal_name}</Underlined>
        </Link>
      )}
    </Flex>
  )
}

function Underlined({ children }: { children: React.ReactNode }) {
  return (
    <Span textDecoration="underline" textUnderlineOffset="3px">
      {children}
    </Span>
  )
}
