import { chakra, Grid, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { NEW, useCorrection } from '@/shared/corrections/useCorrection'
import { clockOf, zone } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { type TemperatureUnit, temperatureUnit } from '@/shared/units'
import { GRAVITY, KINDS, type Kind, type Messenger, minuteOf } from './messenger'
import { subscribe } from './subscribe'

/** Of a target; empty, they stay as they are. */
const SECRETS = ['target.password', 'target.secret', 'target.authority']

/** Fields of the request that the form calls otherwise. */
const FIELDS: Record<string, keyof typeof EMPTY> = {
  quiet_from_min: 'quietFrom',
  quiet_until_min: 'quietUntil',
  life_at_min: 'life',
  temperature_unit: 'unit',
}

const EMPTY = {
  kind: 'email' as Kind,
  /** Whose night it is: of the browser it was added in, and left alone by others. */
  zone: zone(),
  /** What its reader reads temperatures in: to begin with, what is read here. */
  unit: 'C' as TemperatureUnit,
  name: '',
  server: '',
  port: '587',
  security: 'starttls' as 'starttls' | 'tls' | 'none',
  user: '',
  password: '',
  sender: '',
  to: '',
  url: '',
  secret: '',
  quietFrom: '22:00',
  quietUntil: '07:00',
  gravity: 'notice' as Messenger['gravity'],
  life: '',
  authority: '',
}

type Said = typeof EMPTY

/** Adds a messenger, or changes one; secrets left empty stay as they are. */
export function MessengerForm({ held, onDone }: { held?: Messenger; onDone: () => void }) {
  const [start] = useState(() => (held ? saidOf(held) : { ...EMPTY, unit: temperatureUnit() }))
  const form = useForm<Said>({ defaultValues: start })
  const kind = form.watch('kind')
  const refuse = (problem: Problem) => {
    const field = problem.fields[0]?.field.split('.').at(-1) ?? 'name'
    const at = FIELDS[field] ?? field
    form.setError((at in EMPTY ? at : 'name') as keyof Said, { message: problem.detail })
  }
  const add = useAct(
    async (said: Said) => {
      const body = bodyOf(said)
      // Asked for with the press of the button: browsers allow it then alone.
      if (said.kind === 'push') body.target = await subscribe()
      return answer(api.POST('/api/messengers', { body }))
    },
    (act) => act,
    refuse,
  )
  const correction = useCorrection({
    revision: held?.revision ?? NEW,
    opened: held ? bodyOf(start) : null,
    send: (body: Schemas['MessengerRequest'], header) =>
      answer(
        api.PUT('/api/messengers/{messenger}', {
          params: { path: { messenger: held?.id ?? 0 }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone,
  })
  const stays = held && 'Left empty, it stays as it is.'
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        maxWidth="34rem"
        aria-label={held ? `Channel ${held.name}` : 'New channel'}
        onSubmit={form.handleSubmit((said) =>
          held ? correction.save(bodyOf(said), refuse) : add.mutate(said, { onSuccess: onDone }),
        )}
      >
        {!held && (
          <SelectField
            name="kind"
            label="By"
            options={Object.entries(KINDS).map(([value, label]) => ({ value, label }))}
          />
        )}
        <TextField name="name" label="Name" required />
        {kind === 'email' && (
          <>
            <TextField name="server" label="Mail server (SMTP)" required />
            <TextField name="port" label="Port" inputMode="numeric" required />
            <SelectField
              name="security"
              label="Security"
              options={[
                { value: 'starttls', label: 'STARTTLS' },
                { value: 'tls', label: 'TLS from the start' },
                { value: 'none', label: 'none' },
              ]}
            />
            <TextField name="user" label="User, if it asks for one" />
            <TextField name="password" label="Password" type="password" help={stays} />
            <TextField name="sender" label="From address" required />
            <TextField name="to" label="To address" required />
          </>
        )}
        {kind === 'webhook' && (
          <>
            <TextField
              name="url"
              label="Address"
              required
              placeholder="https://"
              help="Gets a POST with title and message as JSON."
            />
            <TextField
              name="secret"
              label="Secret, sent as bearer token"
              type="password"
              help={stays}
            />
          </>
        )}
        {kind === 'push' && !held && (
          <Text mb={4} color="soft">
            Alarms come as notifications, also while Sandboa is closed, as long as the phone and the
            house reach the internet. Nobody but this phone can read them.
          </Text>
        )}
        {(kind === 'email' || kind === 'webhook') && (
          <TextField
            name="authority"
            label="Certificate of your own authority, if it has one"
            lines={3}
            help="For a server in your own network: its authority as PEM. Others are checked anyway."
          />
        )}
        <SelectField
          name="gravity"
          label="What goes out"
          options={Object.entries(GRAVITY).map(([value, label]) => ({ value, label }))}
        />
        <SelectField
          name="unit"
          label="Temperatures in"
          options={[
            { value: 'C', label: '°C' },
            { value: 'F', label: '°F' },
          ]}
        />
        <TextField
          name="life"
          label="Sign of life every day at"
          type="time"
          help="Left empty there is none. When it does not come, Sandboa does not run."
        />
        <Grid templateColumns="1fr 1fr" columnGap={4}>
          <TextField name="quietFrom" label="Quiet from" type="time" />
          <TextField name="quietUntil" label="until" type="time" />
        </Grid>
        <Button type="submit" variant="act" disabled={add.isPending || correction.pending}>
          Record
        </Button>
      </chakra.form>
      <BothVersions
        correction={correction}
        labels={{
          quiet_from_min: 'Quiet from',
          quiet_until_min: 'Quiet until',
          gravity: 'What goes out',
          life_at_min: 'Sign of life every day at',
          zone: 'Time zone',
          temperature_unit: 'Temperatures in',
          'target.url': 'Address',
          'target.to': 'To address',
          'target.sender': 'From address',
        }}
        say={(path, value) =>
          path === 'gravity'
            ? GRAVITY[value as Messenger['gravity']]
            : SECRETS.includes(path)
              ? value
                ? 'as typed here'
                : 'as it was'
              : undefined
        }
      />
    </FormProvider>
  )
}

/** A messenger as typed, to change it; its secrets stay where they are. */
function saidOf(held: Messenger): Said {
  const text = (name: string) => String(held.target[name] ?? '')
  const time = (minute: number | null) => (minute === null ? '' : clockOf(minute))
  return {
    ...EMPTY,
    kind: held.kind,
    zone: held.zone,
    unit: held.temperature_unit,
    name: held.name,
    server: text('server'),
    port: text('port') || EMPTY.port,
    security: (held.target.security as Said['security'] | null) ?? EMPTY.security,
    user: text('user'),
    sender: text('sender'),
    to: text('to'),
    url: text('url'),
    quietFrom: time(held.quiet_from_min),
    quietUntil: time(held.quiet_until_min),
    gravity: held.gravity,
    life: time(held.life_at_min),
  }
}

function bodyOf(said: Said): Schemas['MessengerRequest'] {
  const target =
    said.kind === 'email'
      ? {
          server: said.server,
          port: Number(said.port),
          security: said.security,
          user: said.user,
          password: said.password,
          sender: said.sender,
          to: said.to,
          authority: said.authority,
        }
      : said.kind === 'webhook'
        ? { url: said.url, secret: said.secret, authority: said.authority }
        : {}
  return {
    kind: said.kind,
    name: said.name,
    zone: said.zone,
    temperature_unit: said.unit,
    quiet_from_min: minuteOf(said.quietFrom),
    quiet_until_min: minuteOf(said.quietUntil),
    gravity: said.gravity,
    life_at_min: minuteOf(said.life),
    target,
  }
}
