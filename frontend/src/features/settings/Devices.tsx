import { Box, chakra, Span, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { Link } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { devicesQuery, useAct, useToday } from '@/shared/api/queries'
import { under } from '@/shared/api/under'
import { dayAndTime } from '@/shared/dates'
import Senders from '@/shared/senders/Senders'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { LineButton, ListedLine } from '@/shared/ui/ListedLine'
import { ShownOnce } from './ShownOnce'

type Token = Schemas['TokenResponse']

/** Devices that may send readings. A token is shown once, when it is made. */
export function Devices() {
  const devices = useQuery(devicesQuery)
  const today = useToday()
  const [made, setMade] = useState<Token | null>(null)
  const form = useForm({ defaultValues: { name: '' } })
  const add = useAct(
    (name: string) => answer(api.POST('/api/devices', { body: { name } })),
    (token) => token.act,
    (problem) => form.setError('name', { message: problem.detail }),
  )
  return (
    <>
      <Text color="soft" mb={3}>
        A logger, sensor or gateway sends its readings with a token of its own, in its own words.
        Give its name to a probe when you hang it, or name its values where they are{' '}
        <Link to="/heard">
          <Span textDecoration="underline">heard</Span>
        </Link>
        .
      </Text>
      {today.data && <Senders today={today.data} />}
      {made && <Shown token={made} />}
      <chakra.ul mb={4}>
        {devices.data?.map((device) => (
          <Device key={device.id} device={device} onToken={setMade} />
        ))}
      </chakra.ul>
      <FormProvider {...form}>
        <chakra.form
          noValidate
          display="grid"
          gridTemplateColumns="minmax(0, 1fr) auto"
          gap={4}
          onSubmit={form.handleSubmit(({ name }) =>
            add.mutate(name, {
              onSuccess: (token) => {
                setMade(token)
                form.reset()
              },
            }),
          )}
        >
          <TextField name="name" label="Name of a new device" required />
          <Box pt="1.625rem">
            <Button type="submit" disabled={add.isPending}>
              Make a token
            </Button>
          </Box>
        </chakra.form>
      </FormProvider>
    </>
  )
}

function Device({
  device,
  onToken,
}: {
  device: Schemas['DeviceResponse']
  onToken: (token: Token | null) => void
}) {
  const path = { params: { path: { device: device.id } } }
  const renew = useAct(
    () => answer(api.POST('/api/devices/{device}/token', path)),
    (token) => token.act,
  )
  const revoke = useAct(
    () => answer(api.DELETE('/api/devices/{device}', path)),
    (act) => act,
  )
  return (
    <ListedLine
      name={<strong>{device.name}</strong>}
      more={`${device.probes.length ? device.probes.join(', ') : 'no probe yet'}, ${
        device.last_received_at
          ? `last heard ${dayAndTime(device.last_received_at)}`
          : 'never heard'
      }`}
    >
      <LineButton
        doing={renew.isPending}
        onClick={() => renew.mutate(undefined, { onSuccess: onToken })}
      >
        New token
      </LineButton>
      <LineButton
        doing={revoke.isPending}
        onClick={() => revoke.mutate(undefined, { onSuccess: () => onToken(null) })}
      >
        Revoke
      </LineButton>
    </ListedLine>
  )
}

/** The token in the clear, with a line that sends a reading with it. */
function Shown({ token }: { token: Token }) {
  const line = `curl -X POST ${window.location.origin}${under('/api/readings')} \\
  -H "Authorization: Bearer ${token.token}" \\
  -d '{"readings": [{"at": "${new Date().toISOString().slice(0, 19)}Z", "temperature_c": 31.4, "humidity": 0.62}]}'`
  return (
    <ShownOnce
      words={
        <>
          The token of <strong>{token.name}</strong>. It is shown this once and not kept here:
        </>
      }
      secret={token.token}
    >
      <chakra.pre
        color="soft"
        fontSize="fine"
        whiteSpace="pre-wrap"
        overflowWrap="anywhere"
        aria-label="How to send a reading with it"
      >
        {line}
      </chakra.pre>
    </ShownOnce>
  )
}
