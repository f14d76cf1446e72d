import { Box, chakra, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useEffect } from 'react'
import { Link, useLocation } from 'react-router'
import { Phones } from '@/features/home-network/Phones'
import { Messengers } from '@/features/messengers/Messengers'
import { ProgramLog } from '@/features/program-log/ProgramLog'
import { useMethods } from '@/shared/api/queries'
import { mayRun, useSession } from '@/shared/people/session'
import { Temperatures } from '@/shared/people/Temperatures'
import { Button } from '@/shared/ui/Button'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { temperature, useTemperatureUnit } from '@/shared/units'
import { Backups } from './Backups'
import { Calendar } from './Calendar'
import { Devices } from './Devices'
import { Numbers } from './Numbers'
import { People } from './People'
import { settingsQuery } from './queries'
import { Scores } from './Scores'
import { SecurityLog } from './SecurityLog'
import { WholeHouse } from './WholeHouse'

/** The house's methods and numbers, each with its reason. */
export function Component() {
  const methods = useMethods()
  const settings = useQuery(settingsQuery)
  const unit = useTemperatureUnit()
  const session = useSession()
  useAnchor(methods.data !== undefined && settings.data !== undefined)
  if (!methods.data || !settings.data) {
    return <Waiting problem={methods.error?.message ?? settings.error?.message} />
  }
  return (
    <Stack gap={10} maxWidth="53.75rem">
      <Title>Settings</Title>
      {session.data && !mayRun(session.data) && (
        <Notice>Only a keeper may change how the house is run; you may look.</Notice>
      )}
      <section aria-labelledby="methods">
        <Heading id="methods">House methods</Heading>
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
      </section>
      {session.data && !session.data.sign_in && (
        <section aria-labelledby="temperatures">
          <Heading id="temperatures">Temperatures</Heading>
          <Temperatures />
        </section>
      )}
      <section aria-labelledby="phones">
        <Heading id="phones">Phones</Heading>
        <Phones />
      </section>
      {mayRun(session.data) && (
        <section aria-labelledby="people">
          <Heading id="people">People</Heading>
          <People />
        </section>
      )}
      <section aria-labelledby="calendar">
        <Heading id="calendar">Calendar</Heading>
        <Calendar />
      </section>
      {mayRun(session.data) && (
        <section aria-labelledby="whole-house">
          <Heading id="whole-house">The whole house</Heading>
          <WholeHouse />
        </section>
      )}
      {mayRun(session.data) && (
        <section aria-labelledby="backups">
          <Heading id="backups">Backups</Heading>
          <Backups />
        </section>
      )}
      {mayRun(session.data) && (
        <section aria-labelledby="security">
          <Heading id="security">Who came in</Heading>
          <SecurityLog />
        </section>
      )}
      {mayRun(session.data) && (
        <section aria-labelledby="log">
          <Heading id="log">What the program noted</Heading>
          <ProgramLog />
        </section>
      )}
      <section aria-labelledby="devices">
        <Heading id="devices">Devices and tokens</Heading>
        <Devices />
      </section>
      <section aria-labelledby="messengers">
        <Heading id="messengers">Alarms out of the house</Heading>
        <Messengers />
      </section>
      <section aria-labelledby="scores">
        <Heading id="scores">How good the forecasts were</Heading>
        <Scores />
      </section>
      <section aria-labelledby="numbers">
        <Heading id="numbers">Numbers</Heading>
        <Text color="soft" mb={3}>
          What the house judges by. A number you set replaces the default everywhere at once.
        </Text>
        <Numbers settings={settings.data} />
      </section>
    </Stack>
  )
}

/** Goes to the section that the address names, once it is there. */
function useAnchor(ready: boolean) {
  const { hash } = useLocation()
  useEffect(() => {
    if (ready && hash) document.getElementById(hash.slice(1))?.scrollIntoView()
  }, [ready, hash])
}
