import { Box, chakra, Span, Strong, Text } from '@chakra-ui/react'
import { Link } from 'react-router'
import { useMethods } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { Fetching } from '@/shared/ui/page'
import { temperature, useTemperatureUnit } from '@/shared/units'

/** The methods of the house; clutches copy one. */
export function Methods() {
  const methods = useMethods()
  const unit = useTemperatureUnit()
  if (!methods.data) return <Fetching problem={methods.error?.message} />
  return (
    <div>
      <Text color="soft" mb={3}>
        Every clutch copies the method it was laid with and can differ from it afterwards. Results
        are compared by method later.
      </Text>
      <chakra.ul mb={4}>
        {methods.data.methods.map(({ id, method, chosen, temperature_school }) => (
          <li key={method.name}>
            <Link to={`/settings/methods/${id ?? 'standard'}`}>
              <Box py={3} borderTop="1px solid" borderColor="line" _hover={{ bg: 'faint' }}>
                <Strong fontSize="large">{method.name}</Strong>
                {chosen && <Span color="soft"> for new clutches</Span>}
                <Span display="block" color="soft">
                  {method.dam === 'maternal incubation'
                    ? 'The dam keeps the clutch; eggs are not touched.'
                    : `${method.medium}, ${method.closing}, ${temperature(method.temperature_c, unit)} (${temperature_school}), visits ${method.visits}`}
                </Span>
              </Box>
            </Link>
          </li>
        ))}
      </chakra.ul>
      <Button asChild>
        <Link to="/settings/methods/new">Add a method</Link>
      </Button>
    </div>
  )
}
