import { Box, chakra, Text } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { RELIABILITY_REM } from '@/shared/charts/reliability'
import { ONE_COLUMN } from '@/shared/theme/tight'
import { Heading } from '@/shared/ui/page'
import { percent } from '@/shared/units'
import type { Season } from './queries'
import { reliabilityWords } from './rates'

// The chart's script is large, and only this place needs it.
const ReliabilityChart = lazy(() =>
  import('@/shared/charts/ReliabilityChart').then((module) => ({
    default: module.ReliabilityChart,
  })),
)

type Score = Season['standings'][number]

/** The chances that were told of eggs, against what came of them. */
export function Standings({ season }: { season: Season }) {
  return (
    <section aria-labelledby="standings">
      <Heading id="standings">Standings against what came</Heading>
      {season.standings.length === 0 && (
        <p>
          No egg of a closed clutch was judged yet. The chance of each is kept on days 30 and 50
          after lay.
        </p>
      )}
      {season.standings.map((score) => (
        <OneDay key={score.day} score={score} />
      ))}
    </section>
  )
}

function OneDay({ score }: { score: Score }) {
  return (
    <Box mb={7}>
      <p>
        <strong>On day {score.day}:</strong> {score.eggs} eggs, of which {score.hatched} hatched.{' '}
        {score.words}
      </p>
      <chakra.ul mt={2} mb={3}>
        {score.bins.map(({ standing, eggs, said, hatched }) => (
          <chakra.li
            key={standing}
            display="grid"
            gridTemplateColumns="9em 1fr"
            css={ONE_COLUMN}
            columnGap={3}
            py={1}
            borderTop="1px solid"
            borderColor="line"
          >
            <strong>{standing}</strong>
            <span>
              said {said < 0.01 ? 'under 1\u00a0%' : percent(said)} will hatch; {hatched} of {eggs}{' '}
              did ({percent(hatched / eggs)})
            </span>
          </chakra.li>
        ))}
      </chakra.ul>
      {score.will_hatch && (
        <Suspense fallback={<Box height={`${RELIABILITY_REM}rem`} />}>
          <ReliabilityChart bins={score.will_hatch.bins} rings={score.alive?.bins} />
        </Suspense>
      )}
      <Text color="soft" fontSize="small">
        Dots: will hatch, said and came. A dot on the line was right; its bar holds the share in
        nine cases of ten. {reliabilityWords(score)}
      </Text>
    </Box>
  )
}
