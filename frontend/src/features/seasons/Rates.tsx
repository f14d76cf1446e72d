import { Box, chakra, Flex, Grid, HStack, Span, Text } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import { Link } from 'react-router'
import { Narrow } from '@/shared/many/Narrow'
import type { Facet } from '@/shared/many/narrowing'
import { useNarrowing } from '@/shared/many/useNarrowing'
import { Button } from '@/shared/ui/Button'
import { firstOf } from '@/shared/ui/firstOf'
import { Pick } from '@/shared/ui/Pick'
import { Heading } from '@/shared/ui/page'
import { percent } from '@/shared/units'
import { type Dimension, type Group, type Season, useComparison } from './queries'
import { changeWords, chartHeightRem, expectedWords, orders, rateWords } from './rates'

// The chart's script is large, and only this place needs it.
const WhiskerChart = lazy(() =>
  import('./WhiskerChart').then((module) => ({ default: module.WhiskerChart })),
)

/** Hatch rates by one dimension at a time, with intervals, and two groups compared. */
export function Rates({ season }: { season: Season }) {
  const shown = season.dimensions.filter((d) => d.groups.length > 0)
  const [by, setBy] = useState<Dimension>('medium')
  const chosen = shown.find((d) => d.dimension === by) ?? shown[0]
  if (!chosen) return null
  return (
    <section aria-labelledby="rates">
      <Heading id="rates">Hatch rates</Heading>
      <Text mb={3} maxWidth="40em">
        All together {rateWords(season.hatched)}. The bar holds the rate in{' '}
        {percent(season.interval_level)} of cases; it is wider than the eggs alone would make it,
        for eggs of one clutch share their luck. The ring is what to expect next, drawn to the
        house's mean where a group is small and, but for shelf and method, with all else as usual:
        dam, sire, medium, closing, cabinet and month are weighed together.
      </Text>
      <Flex gap={2} wrap="wrap" mb={4} role="group" aria-label="Grouped by">
        {shown.map(({ dimension }) => (
          <chakra.button
            key={dimension}
            id={`by-${dimension}`}
            type="button"
            aria-pressed={dimension === chosen.dimension}
            onClick={() => setBy(dimension)}
            minHeight="thumbSmall"
            px={4}
            border="2px solid"
            borderColor={dimension === chosen.dimension ? 'ink' : 'line'}
            borderRadius="small"
            fontWeight={dimension === chosen.dimension ? 'bold' : 'medium'}
            cursor="pointer"
            _hover={{ bg: 'faint' }}
          >
            {dimension}
          </chakra.button>
        ))}
      </Flex>
      <Groups key={chosen.dimension} season={season} dimension={chosen} />
    </section>
  )
}

/** Groups drawn and told at once; the others on asking. */
const SHOWN = 12

/** The groups of one dimension, as a chart and in words; of many the first, by the order chosen. */
function Groups({
  season,
  dimension,
}: {
  season: Season
  dimension: Season['dimensions'][number]
}) {
  const [all, setAll] = useState(false)
  const narrowing = useNarrowing(dimension.groups, {
    glance: SHOWN,
    facets: NO_FACETS,
    orders,
    textOf: ({ name }) => name,
  })
  const groups = all ? narrowing.items : firstOf(narrowing.items, SHOWN)
  return (
    <>
      <Box mb={narrowing.many ? 4 : 0}>
        <Narrow narrowing={narrowing} what="groups" of={`${dimension.groups.length} groups`} />
      </Box>
      <Grid templateColumns={{ base: '1fr', lg: '3fr 2fr' }} columnGap={10} rowGap={4}>
        <Suspense fallback={<Box height={`${chartHeightRem(groups)}rem`} />}>
          <WhiskerChart groups={groups} />
        </Suspense>
        <div>
          <ul aria-label={`Hatch rate by ${dimension.dimension}`}>
            {groups.map(({ name, rate, like_for_like, together }) => (
              <chakra.li
                key={name}
                minHeight="2.125rem"
                borderTop="1px solid"
                borderColor="line"
                py={1}
              >
                <strong>{name}</strong> {rateWords(rate)}{' '}
                <Span color="soft">
                  in {rate.clutches} {rate.clutches === 1 ? 'clutch' : 'clutches'}
                  {like_for_like && `; all else as usual ${expectedWords(like_for_like)}`}
                </Span>
                {together.length > 0 && (
                  <Span display="block" fontSize="small">
                    Came with {together.join(' and ')} each time: they cannot be told apart.
                  </Span>
                )}
              </chakra.li>
            ))}
          </ul>
          {groups.length < narrowing.items.length && (
            <Button type="button" variant="bare" size="small" onClick={() => setAll(true)}>
              {narrowing.items.length - groups.length} more
            </Button>
          )}
          <Changes changes={dimension.changes} />
          <Compare season={season} dimension={dimension.dimension} />
        </div>
      </Grid>
    </>
  )
}

const NO_FACETS: Facet<Group>[] = []

/** Changes told at once; the others on asking. */
const TOLD = 4

/** Eggs that lay under two names: an egg is counted once, and here is said under which. */
function Changes({ changes }: { changes: Season['dimensions'][number]['changes'] }) {
  const [all, setAll] = useState(false)
  if (changes.length === 0) return null
  return (
    <Box mt={4}>
      <chakra.h3 fontWeight="bold">Changed while they developed</chakra.h3>
      <Text color="soft">Counted where they lay longest.</Text>
      <ul aria-label="Changed while they developed">
        {(all ? changes : changes.slice(0, TOLD)).map((change) => (
          <chakra.li key={changeWords(change)} py={1} lineHeight={1.35}>
            <Link to={`/clutches/${change.code}`}>{changeWords(change)};</Link>{' '}
            <Span color="soft">counted under {change.counted}</Span>
          </chakra.li>
        ))}
      </ul>
      {changes.length > TOLD && (
        <Button type="button" variant="bare" size="small" onClick={() => setAll(!all)}>
          {all ? 'Fewer' : `${changes.length - TOLD} more`}
        </Button>
      )}
    </Box>
  )
}

function Compare({ season, dimension }: { season: Season; dimension: Dimension }) {
  const names =
    season.dimensions.find((d) => d.dimension === dimension)?.groups.map((g) => g.name) ?? []
  const [first, setFirst] = useState(names[0])
  const [second, setSecond] = useState(names[1])
  const told = useComparison(dimension, first, second, season.year)
  if (names.length < 2) return null
  return (
    <Box mt={5}>
      <chakra.h3 fontWeight="bold">Compare</chakra.h3>
      <HStack gap={2} wrap="wrap" my={2}>
        <Pick label="First group" options={named(names)} value={first} onPick={setFirst} />
        <span>with</span>
        <Pick label="Second group" options={named(names)} value={second} onPick={setSecond} />
      </HStack>
      <Text role="status" fontSize="lead">
        {first === second ? 'Two different groups, please.' : (told.data?.words ?? '')}
      </Text>
    </Box>
  )
}

function named(names: string[]) {
  return names.map((name) => ({ value: name, label: name }))
}
