import { Box, chakra, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { forecastScoresQuery } from './queries'

/** How good the house's forecasts were: error and coverage, for clutches that are done. */
export function Scores() {
  const scores = useQuery(forecastScoresQuery)
  if (!scores.data?.length) {
    return (
      <Text color="soft">
        No clutch is done yet. What is forecast on day 0, 30 and 50 is kept and held against what
        came.
      </Text>
    )
  }
  return (
    // Five columns: with large letters the table alone is moved sideways, not the page.
    <Box overflowX="auto" tabIndex={0} role="group" aria-label="Forecasts and what came">
      <chakra.table width="100%" minWidth="28rem" borderCollapse="collapse">
        <chakra.thead color="soft" fontSize="small">
          <tr>
            {['Forecast on', 'off by', 'too late by', '50 % window held', '80 % window held'].map(
              (heading) => (
                <chakra.th key={heading} textAlign="left" fontWeight="medium" py={1} pe={3}>
                  {heading}
                </chakra.th>
              ),
            )}
          </tr>
        </chakra.thead>
        <tbody>
          {scores.data.map((score) => (
            <chakra.tr
              key={`${score.day} ${score.first_season}`}
              borderTop="1px solid"
              borderColor="line"
            >
              <chakra.th scope="row" textAlign="left" fontWeight="semibold" py={2}>
                day {score.day}
                {score.first_season && ', first season'}
              </chakra.th>
              <td>{score.error_days.toFixed(1)} days</td>
              <td>{score.bias_days.toFixed(1)} days</td>
              <td>
                {score.in_half} of {score.clutches}
              </td>
              <td>
                {score.in_eighty} of {score.clutches}
              </td>
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </Box>
  )
}
