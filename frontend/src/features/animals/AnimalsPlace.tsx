import { Box, Grid, HStack, Span, Stack, Text } from '@chakra-ui/react'
import { useId } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { clutchesOf } from '@/shared/api/clutchesOf'
import { useAnimals, useSeason, useToday } from '@/shared/api/queries'
import { SeasonStrip } from '@/shared/breeding/SeasonStrip'
import { day, fullDay } from '@/shared/dates'
import { traitsInWords } from '@/shared/traits'
import { Button } from '@/shared/ui/Button'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { GeneList } from './GeneList'
import { NextVisits } from './NextVisits'
import { PairOdds } from './PairOdds'

type Animal = Schemas['AnimalResponse']

/** Dams and sires, the season they are in, and who visits whom next. */
export function Component() {
  const animals = useAnimals()
  const season = useSeason()
  const today = useToday()
  if (!animals.data || !season.data) {
    return <Waiting problem={animals.error?.message ?? season.error?.message} />
  }
  const of = (role: string) =>
    animals.data.filter((animal) => animal.role === role && !animal.departure)
  const left = animals.data.filter((animal) => animal.departure)
  return (
    <Stack gap={10}>
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
      {animals.data.length === 0 ? (
        <Text fontSize="lead" maxWidth="40rem">
          No dams or sires yet. Add those you mean to pair; the first clutch of a dam adds her by
          herself.
        </Text>
      ) : (
        <>
          {season.data.dams.length > 0 && (
            <section aria-labelledby="season">
              <Heading id="season">Season</Heading>
              <SeasonStrip season={season.data} clutches={clutchesOf(today.data)} />
            </section>
          )}
          <section aria-labelledby="visits">
            <Heading id="visits">Next visits</Heading>
            <NextVisits season={season.data} animals={animals.data} />
          </section>
          <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} columnGap={12} rowGap={10}>
            <section aria-labelledby="odds">
              <Heading id="odds">What a pair can produce</Heading>
              <PairOdds animals={animals.data} />
            </section>
            <section aria-labelledby="traits">
              <Heading id="traits">Your traits</Heading>
              <GeneList />
            </section>
          </Grid>
          <AnimalList title="Dams" animals={of('dam')} />
          <AnimalList title="Sires" animals={of('sire')} />
          <AnimalList title="Left the house" animals={left} />
        </>
      )}
    </Stack>
  )
}

function AnimalList({ title, animals }: { title: string; animals: Animal[] }) {
  const heading = useId()
  if (animals.length === 0) return null
  return (
    <section aria-labelledby={heading}>
      <Heading id={heading}>{title}</Heading>
      <ul>
        {animals.map((animal) => (
          <li key={animal.id}>
            <Link to={`/animals/${animal.id}`}>
              <Grid
                templateColumns={{ base: '1fr auto', md: '11.875rem 1fr 8.125rem 13.125rem' }}
                columnGap={5}
                alignItems="baseline"
                py={3}
                borderTop="1px solid"
                borderColor="line"
                _hover={{ bg: 'faint' }}
                color={animal.retired || animal.departure ? 'soft' : undefined}
              >
                <Span fontSize="large" fontWeight="bold">
                  {animal.name}
                  {(animal.departure || animal.retired) && (
                    <Span fontSize="fine" fontWeight="medium">
                      {' '}
                      {animal.departure
                        ? `${animal.departure.how} ${fullDay(animal.departure.at)}`
                        : 'retired'}
                    </Span>
                  )}
                </Span>
                <Span
                  textAlign={{ base: 'right', md: 'left' }}
                  order={{ base: 2, md: 0 }}
                  gridColumn={{ base: '1 / -1', md: 'auto' }}
                >
                  <Span display="block" textAlign="left" color="soft">
                    {traitsInWords(animal)}
                  </Span>
                </Span>
                <Span whiteSpace="var(--one-line)" textAlign="right">
                  {animal.mass_g !== null ? (
                    <>
                      <strong>{animal.mass_g.toFixed(0)} g</strong>
                      <Span color="soft" fontSize="fine" display="block">
                        {animal.weighed_at && day(animal.weighed_at)}
                      </Span>
                    </>
                  ) : (
                    <Span color="soft">not weighed</Span>
                  )}
                </Span>
                <Span color="soft" order={3} gridColumn={{ base: '1 / -1', md: 'auto' }}>
                  {productivity(animal)}
                </Span>
              </Grid>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** "2025: 6-0; 2026: 7-2" */
function productivity(animal: Animal): string {
  return animal.clutches.map((year) => `${year.year}: ${year.counts.join(', ')}`).join('; ')
}
