import { chakra, Span, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { Heading } from '@/shared/ui/page'
import type { Season } from './queries'

/** Slugs of laid eggs: in all, by month of laying, and by dam with each of her years. */
export function Slugs({ season }: { season: Season }) {
  const { in_all, by_dam, by_month } = season.slug_rates
  return (
    <section aria-labelledby="slugs">
      <Heading id="slugs">Slugs</Heading>
      <Text mb={3}>All together {slugWords(in_all)}.</Text>
      <chakra.h3 fontWeight="bold">By month of laying</chakra.h3>
      <chakra.ul
        display="grid"
        gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }}
        columnGap={10}
        mb={5}
      >
        {by_month.map(({ name, rate }) => (
          <chakra.li key={name} py={2} borderTop="1px solid" borderColor="line">
            <strong>{name}</strong> <Span color="soft">{slugWords(rate)}</Span>
          </chakra.li>
        ))}
      </chakra.ul>
      <chakra.h3 fontWeight="bold">By dam</chakra.h3>
      <chakra.ul display="grid" gridTemplateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap={10}>
        {by_dam.map(({ name, rate }) => (
          <chakra.li key={name} py={2} borderTop="1px solid" borderColor="line">
            <strong>{name}</strong>{' '}
            {season.slugs
              .filter((year) => year.dam === name)
              .map((year) => `${year.year}: ${year.counts.join(', ')}`)
              .join('; ')}{' '}
            <Span color="soft">{slugWords(rate)}</Span>
          </chakra.li>
        ))}
      </chakra.ul>
    </section>
  )
}

function slugWords(rate: Schemas['RateResponse']): string {
  const count = rate.k === 0 ? `no slug of ${rate.n}` : `slugs ${rate.k} of ${rate.n}`
  return `${count}, likely ${Math.round(100 * rate.low)} to ${Math.round(100 * rate.high)}\u00a0%`
}
