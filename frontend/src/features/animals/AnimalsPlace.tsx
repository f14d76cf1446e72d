import { chakra } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { useAnimals, useSeason, useToday } from '@/shared/api/queries'
import { SeasonStrip } from '@/shared/breeding/SeasonStrip'
import { day } from '@/shared/dates'
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
  const of = (role: string) => animals.data.filter((animal) => animal.role === role)
  return (
    <chakra.div display="flex" flexDirection="column" gap={10}>
      <chakra.div display="flex" alignItems="center" gap={4} flexWrap="wrap">
        <Title>Animals</Title>
        <chakra.div marginStart="auto">
          <Button asChild>
            <Link to="/animals/new">Add an animal</Link>
          </Button>
        </chakra.div>
      </chakra.div>
      {animals.data.length === 0 ? (
        <chakra.p fontSize="1.1em" maxWidth="40rem">
          No dams or sires yet. Add those you mean to pair; the first clutch of a dam adds her by
          herself.
        </chakra.p>
      ) : (
        <>
          {season.data.dams.length > 0 && (
            <section aria-labelledby="season">
              <Heading id="season">Season</Heading>
              <SeasonStrip season={season.data} clutches={today.data?.clutches ?? []} />
            </section>
          )}
          <section aria-labelledby="visits">
            <Heading id="visits">Next visits</Heading>
            <NextVisits season={season.data} animals={animals.data} />
          </section>
          <chakra.div
            display="grid"
            gridTemplateColumns={{ base: '1fr', lg: '1fr 1fr' }}
            columnGap={12}
            rowGap={10}
          >
            <section aria-labelledby="odds">
              <Heading id="odds">What a pair can produce</Heading>
              <PairOdds animals={animals.data} />
            </section>
            <section aria-labelledby="traits">
              <Heading id="traits">Your traits</Heading>
              <GeneList />
            </section>
          </chakra.div>
          <AnimalList title="Dams" animals={of('dam')} />
          <AnimalList title="Sires" animals={of('sire')} />
        </>
      )}
    </chakra.div>
  )
}

function AnimalList({ title, animals }: { title: string; animals: Animal[] }) {
  if (animals.length === 0) return null
  return (
    <section aria-labelledby={title}>
      <Heading id={title}>{title}</Heading>
      <chakra.ul listStyleType="none">
        {animals.map((animal) => (
          <li key={animal.id}>
            <Link to={`/animals/${animal.id}`}>
              <chakra.div
                display="grid"
                gridTemplateColumns={{ base: '1fr auto', md: '190px 1fr 130px 210px' }}
                columnGap={5}
                alignItems="baseline"
                py={3}
                borderTop="1px solid"
                borderColor="line"
                _hover={{ bg: 'faint' }}
                color={animal.retired ? 'soft' : undefined}
              >
                <chakra.span fontSize="1.2em" fontWeight={750}>
                  {animal.name}
                  {animal.retired && (
                    <chakra.span fontSize="0.75em" fontWeight={500}>
                      {' '}
                      retired
                    </chakra.span>
                  )}
                </chakra.span>
                <chakra.span
                  textAlign={{ base: 'right', md: 'left' }}
                  order={{ base: 2, md: 0 }}
                  gridColumn={{ base: '1 / -1', md: 'auto' }}
                >
                  <chakra.span display="block" textAlign="left" color="soft">
                    {traitsInWords(animal)}
                  </chakra.span>
                </chakra.span>
                <chakra.span whiteSpace="nowrap" textAlign="right">
                  {animal.mass_g !== null ? (
                    <>
                      <strong>{animal.mass_g.toFixed(0)} g</strong>
                      <chakra.span color="soft" fontSize="0.85em" display="block">
                        {animal.weighed_at && day(animal.weighed_at)}
                      </chakra.span>
                    </>
                  ) : (
                    <chakra.span color="soft">not weighed</chakra.span>
                  )}
                </chakra.span>
                <chakra.span color="soft" order={3} gridColumn={{ base: '1 / -1', md: 'auto' }}>
                  {productivity(animal)}
                </chakra.span>
              </chakra.div>
            </Link>
          </li>
        ))}
      </chakra.ul>
    </section>
  )
}

/** "2025: 6-0; 2026: 7-2" */
function productivity(animal: Animal): string {
  return animal.clutches.map((year) => `${year.year}: ${year.counts.join(', ')}`).join('; ')
}
