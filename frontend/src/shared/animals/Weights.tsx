import { Box, Text } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import type { Schemas } from '@/shared/api/client'
import { fullDay } from '@/shared/dates'
import { Waiting } from '@/shared/ui/page'

/** px kept for the chart until its script is here, so that nothing moves away under a thumb. */
const HEIGHT = 230

const WeightChart = lazy(() =>
  import('./WeightChart').then(({ WeightChart }) => ({ default: WeightChart })),
)

/** Weights over time; with lay days, and the lightest weight to breed at, of a dam. */
export function Weights({
  weights,
  laidAt = [],
  lightest = null,
}: {
  weights: Schemas['WeightResponse'][]
  laidAt?: string[]
  lightest?: number | null
}) {
  const [only, ...more] = weights
  if (!only) return <Text color="soft">Not weighed yet.</Text>
  if (more.length === 0) {
    return (
      <Text>
        <strong>{only.mass_g} g</strong>, {fullDay(only.at)}
      </Text>
    )
  }
  // Of one that still has to grow so much it would only press the curve flat.
  const near = lightest !== null && weights.some(({ mass_g }) => mass_g > lightest / 2)
  return (
    <Suspense
      fallback={
        <Box height={`${HEIGHT}px`}>
          <Waiting />
        </Box>
      }
    >
      <WeightChart
        height={HEIGHT}
        weights={weights}
        laidAt={laidAt}
        lightest={near ? lightest : null}
      />
    </Suspense>
  )
}
