import { Box, chakra, Flex, Grid, HStack, Span, Text } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import { Pick } from '@/shared/ui/Pick'
import { Heading } from '@/shared/ui/page'
import { type Dimension, type Season, useComparison } from './queries'
import { chartHeightRem, rateWords } from './rates'

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
        All together {rateWords(season.hatched)}. The bar holds the rate in nine cases of ten; it is
        wider than the eggs alone would make it, for eggs of one clutch share their luck. The ring
        is what to expect next, drawn to the house's mean where a group is small.
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
      <Grid templateColumns={{ base: '1fr', lg: '3fr 2fr' }} columnGap={10} rowGap={4}>
        <Suspense fallback={<Box height={`${chartHeightRem(chosen.groups)}rem`} />}>
          <WhiskerChart groups={chosen.groups} />
        </Suspense>
        <div>
          <ul aria-label={`Hatch rate by ${chosen.dimension}`}>
            {chosen.groups.map(({ name, rate }) => (
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
                </Span>
              </chakra.li>
            ))}
          </ul>
          <Compare key={chosen.dimension} season={season} dimension={chosen.dimension} />
        </div>
      </Grid>
    </section>
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
