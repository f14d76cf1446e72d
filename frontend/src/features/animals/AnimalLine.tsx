import { Grid, Span } from '@chakra-ui/react'
import { Link } from 'react-router'
import { day, fullDay } from '@/shared/dates'
import { traitsInWords } from '@/shared/traits'
import type { Animal } from './narrowing'

/** An animal in a list: where it stands now, its traits, its weight and its years. */
export function AnimalLine({
  animal,
  now,
  flags,
}: {
  animal: Animal
  /** Where it stands, in words. */
  now: string
  /** What calls for somebody, in sentences; they stand in its place. */
  flags: string[]
}) {
  return (
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
        <Span order={{ base: 2, md: 0 }} gridColumn={{ base: '1 / -1', md: 'auto' }}>
          {flags.length > 0 ? (
            <Span color="vessel" fontWeight="semibold">
              {flags.join(' ')}{' '}
            </Span>
          ) : (
            now && <Span fontWeight="semibold">{now[0]?.toUpperCase() + now.slice(1)}. </Span>
          )}
          <Span color="soft">{traitsInWords(animal)}</Span>
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
  )
}

/** "2025: 6-0; 2026: 7-2" */
function productivity(animal: Animal): string {
  return animal.clutches.map((year) => `${year.year}: ${year.counts.join(', ')}`).join('; ')
}
