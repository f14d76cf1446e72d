import { Box, Grid, HStack, Span, Stack, Text } from '@chakra-ui/react'
import { type ReactNode, useId } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { clutchesOf } from '@/shared/api/clutchesOf'
import { useAfterLaying, useAnimals, useSeason, useToday } from '@/shared/api/queries'
import { SeasonStrip } from '@/shared/breeding/SeasonStrip'
import { Narrow } from '@/shared/many/Narrow'
import { TickedRow } from '@/shared/many/TickedRow'
import { useNarrowing } from '@/shared/many/useNarrowing'
import { useSeveral } from '@/shared/many/useSeveral'
import { WindowedList } from '@/shared/many/WindowedList'
import { Button } from '@/shared/ui/Button'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { AnimalLine } from './AnimalLine'
import { GeneList } from './GeneList'
import { NextVisits } from './NextVisits'
import { type Animal, inWords, narrowingOf, type StandingKey, standingsOf } from './narrowing'
import { PairOdds } from './PairOdds'
import { SeveralAnimals } from './SeveralAnimals'

/** Whether a standing is said in a line: what is retired, or has left, says so beside its name. */
const isNews = (standing: StandingKey) => standing !== 'retired' && standing !== 'left'

/** Dams and sires, the season they are in, and who visits whom next. */
export function Component() {
  const animals = useAnimals()
  const season = useSeason()
  const today = useToday()
  const after = useAfterLaying()
  if (!animals.data || !season.data) {
    return <Waiting problem={animals.error?.message ?? season.error?.message} />
  }
  return (
    <Herd
      animals={animals.data}
      season={season.data}
      after={after.data ?? []}
      clutches={clutchesOf(today.data)}
    />
  )
}

function Herd({
  animals,
  season,
  after,
  clutches,
}: {
  animals: Animal[]
  season: Schemas['LaySeasonResponse']
  after: Schemas['AfterLayingResponse'][]
  clutches: Schemas['ClutchInBoxResponse'][]
}) {
  const codes = new Set(clutches.map(({ code }) => code))
  const standings = standingsOf(animals, { season, after, codes })
  const narrowing = useNarrowing(animals, narrowingOf(standings))
  const { items, many } = narrowing
  const flags = new Map(after.map((dam) => [dam.dam, dam.flags]))
  const several = useSeveral(items.map(({ id }) => id))
  const here = items.filter(({ departure }) => !departure)
  const row = (animal: Animal) => (
    <TickedRow several={several} id={animal.id} name={animal.name}>
      <AnimalLine
        animal={animal}
        now={inWords((standings.get(animal.id) ?? []).filter(isNews))}
        flags={flags.get(animal.id) ?? []}
      />
    </TickedRow>
  )
  // Whoever looks for some of them, or ticks several, has the lists before them.
  const listing = narrowing.narrow || several.choosing
  return (
    <Stack gap={many ? 6 : 10}>
      <HStack gap={4} wrap="wrap">
        <Title>Animals</Title>
        <Box marginStart="auto">
          <HStack gap={2} wrap="wrap">
            <Button asChild>
              <Link to="/hatchlings">Hatchlings</Link>
            </Button>
            <Button asChild>
              <Link to="/old-records">Old records</Link>
            </Button>
            <Button asChild>
              <Link to="/animals/new">Add an animal</Link>
            </Button>
          </HStack>
        </Box>
      </HStack>
      {animals.length === 0 ? (
        <Text fontSize="lead" maxWidth="40rem">
          No dams or sires yet. Add those you mean to pair; the first clutch of a dam adds her by
          herself.
        </Text>
      ) : (
        <>
          <Narrow narrowing={narrowing} what="animals" of={`${animals.length} animals`}>
            {!several.choosing && <Button onClick={several.start}>Choose several</Button>}
          </Narrow>
          {!listing && <Overview animals={animals} season={season} clutches={clutches} />}
          <AnimalList title="Dams" animals={here.filter(({ role }) => role === 'dam')} row={row} />
          <AnimalList
            title="Sires"
            animals={here.filter(({ role }) => role === 'sire')}
            row={row}
          />
          <AnimalList
            title="Left the house"
            animals={items.filter(({ departure }) => departure)}
            row={row}
          />
          <SeveralAnimals several={several} animals={items} />
        </>
      )}
    </Stack>
  )
}

/** The season at a glance: who is where in it, who visits whom, and what that can bring. */
function Overview({
  animals,
  season,
  clutches,
}: {
  animals: Animal[]
  season: Schemas['LaySeasonResponse']
  clutches: Schemas['ClutchInBoxResponse'][]
}) {
  return (
    <Stack gap={10}>
      {season.dams.length > 0 && (
        <section aria-labelledby="season">
          <Heading id="season">Season</Heading>
          <SeasonStrip season={season} clutches={clutches} />
        </section>
      )}
      <section aria-labelledby="visits">
        <Heading id="visits">Next visits</Heading>
        <NextVisits season={season} animals={animals} />
      </section>
      <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} columnGap={12} rowGap={10}>
        <section aria-labelledby="odds">
          <Heading id="odds">What a pair can produce</Heading>
          <PairOdds animals={animals} />
        </section>
        <section aria-labelledby="traits">
          <Heading id="traits">Your traits</Heading>
          <GeneList />
        </section>
      </Grid>
    </Stack>
  )
}

/** How high a line is by itself, px. */
const LINE_PX = 66

function AnimalList({
  title,
  animals,
  row,
}: {
  title: string
  animals: Animal[]
  row: (animal: Animal) => ReactNode
}) {
  const heading = useId()
  if (animals.length === 0) return null
  return (
    <section aria-labelledby={heading}>
      <Heading id={heading}>
        {title}
        <Span color="soft"> {animals.length}</Span>
      </Heading>
      <WindowedList items={animals} keyOf={({ id }) => id} height={LINE_PX} row={row} />
    </section>
  )
}
