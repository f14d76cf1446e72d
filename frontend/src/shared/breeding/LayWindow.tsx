import { Box, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { day, dayRange } from '@/shared/dates'

/** When she lays, in a sentence, and what that rests on. */
export function LayWindow({ forecast }: { forecast: Schemas['LayForecastResponse'] }) {
  return (
    <Box mb={4}>
      {forecast.window ? (
        <Text fontSize="large">
          Between <strong>{dayRange(forecast.window.p10, forecast.window.p90)}</strong>, most likely{' '}
          <strong>{day(forecast.window.p50)}</strong>.
        </Text>
      ) : (
        <Text fontSize="lead" fontWeight="semibold">
          Longer past her {forecast.sign} than is usual: feel for eggs, and doubt the sign. If she
          strains or weakens, she is a case for a reptile vet.
        </Text>
      )}
      <Text color="soft">
        Counted from her {forecast.sign} on {day(forecast.seen_at)}. {forecast.learned}
      </Text>
    </Box>
  )
}
