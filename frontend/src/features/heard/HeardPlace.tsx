import { chakra, Span, Stack, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { useChoices, useProbes, useToday } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { useHeldOrder } from '@/shared/ui/useHeldOrder'
import { heardQuery } from './queries'
import { Source } from './Source'
import { type Heard, type Kind, kindOf } from './values'

/** What speaks around the house, what of it is stored, and the way to name the rest. */
export function Component() {
  const heard = useQuery(heardQuery)
  const today = useToday()
  const probes = useProbes()
  const choices = useChoices()
  // Each message would put its sensor first, under the hand that names another.
  const held = useHeldOrder(heard.data ?? [], (source) => source.topic ?? source.device)
  if (!heard.data || !today.data || !probes.data || !choices.data) {
    const error = heard.error ?? today.error ?? probes.error ?? choices.error
    return <Waiting problem={error?.message} />
  }
  const of = (kind: Kind) => held.filter((source) => kindOf(source) === kind)
  return (
    <Stack gap={8} maxWidth="53.75rem">
      <Title>Heard</Title>
      <Text color="soft">
        What speaks at the broker, and devices that send by HTTP. Name what is a sensor of yours:
        from then on its readings are stored.
      </Text>
      {today.data.broker_problem && (
        <Notice urgent label="No readings by MQTT">
          {today.data.broker_problem}
        </Notice>
      )}
      {heard.data.length === 0 && <Nothing />}
      <Group name="Sensors without a name" sources={of('sensor')} />
      <Group name="Stored" sources={of('stored')} />
      <Others sources={of('other')} />
    </Stack>
  )
}

function Group({ name, sources }: { name: string; sources: Heard[] }) {
  if (sources.length === 0) return null
  const id = name.replaceAll(' ', '-').toLowerCase()
  return (
    <section aria-labelledby={id}>
      <Heading id={id}>
        {name} <Span color="soft">{sources.length}</Span>
      </Heading>
      <chakra.ul>
        {sources.map((source) => (
          <Source key={source.topic ?? source.device} heard={source} />
        ))}
      </chakra.ul>
    </section>
  )
}

/** Lamps and switches: counted, and shown when asked for. */
function Others({ sources }: { sources: Heard[] }) {
  const [shown, setShown] = useState(false)
  if (sources.length === 0) return null
  if (shown) return <Group name="Everything else" sources={sources} />
  return (
    <Button type="button" alignSelf="start" onClick={() => setShown(true)}>
      Show everything else that speaks: {sources.length}
    </Button>
  )
}

function Nothing() {
  return (
    <Stack gap={3}>
      <Text>Nothing has spoken since the house was started.</Text>
      <Text color="soft">
        A sensor that sends by MQTT is heard once the house is started with its broker, like{' '}
        <code>sandboa serve --mqtt mqtt://192.168.1.5</code>. One that sends by HTTP needs a token
        from{' '}
        <Link to="/settings/devices">
          <Span textDecoration="underline">Devices and tokens</Span>
        </Link>
        .
      </Text>
    </Stack>
  )
}
