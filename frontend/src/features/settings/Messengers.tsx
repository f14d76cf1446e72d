import { chakra } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct, useRules } from '@/shared/api/queries'
import { dayAndTime, zone } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { showProblem } from '@/shared/ui/toaster'
import { LineButton, ListedLine } from './ListedLine'

type Messenger = Schemas['MessengerTold']
type Kind = Messenger['kind']

const KINDS: Record<Kind, string> = {
  email: 'e-mail',
  webhook: 'webhook',
  shelf: 'kept here only',
}

/** The ways alarms leave the house, and what was sent. */
export function Messengers() {
  const messengers = useQuery({
    queryKey: ['messengers'],
    queryFn: () => answer(api.GET('/api/messengers')),
  })
  const [adding, setAdding] = useState(false)
  const repeat = useRules().data?.emergency_repeat_s
  return (
    <>
      <chakra.p color="soft" mb={3}>
        Alarms go out once, outside quiet hours, and again when they are over. An emergency goes out
        at any hour and again{repeat !== undefined && ` every ${repeat / 60} minutes`} until
        somebody says it was seen.
      </chakra.p>
      <chakra.ul listStyleType="none" mb={4}>
        {messengers.data?.map((messenger) => (
          <Line key={messenger.id} messenger={messenger} />
        ))}
      </chakra.ul>
      {adding ? (
        <MessengerForm onDone={() => setAdding(false)} />
      ) : (
        <Button type="button" onClick={() => setAdding(true)}>
          Add a messenger
        </Button>
      )}
      <Sent />
    </>
  )
}

function Line({ messenger }: { messenger: Messenger }) {
  const client = useQueryClient()
  const path = { params: { path: { messenger: messenger.id } } }
  const remove = useAct(
    () => answer(api.DELETE('/api/messengers/{messenger}', path)),
    (act) => act,
  )
  const trial = useMutation({
    mutationFn: () => answer(api.POST('/api/messengers/{messenger}/trial', path)),
    onSuccess: () =>
      Promise.all(
        ['messages', 'messengers'].map((key) => client.invalidateQueries({ queryKey: [key] })),
      ),
    onError: (problem) => showProblem(problem.message),
  })
  return (
    <ListedLine
      name={
        <>
          <strong>{messenger.name}</strong>, {KINDS[messenger.kind]}
        </>
      }
      more={
        <>
          {[
            messenger.target.to ?? messenger.target.url,
            GRAVITY[messenger.gravity],
            quietInWords(messenger),
            messenger.life_at_min !== null && `sign of life at ${clock(messenger.life_at_min)}`,
          ]
            .filter(Boolean)
            .join(', ')}
          <Fares messenger={messenger} />
        </>
      }
    >
      <LineButton doing={trial.isPending} onClick={() => trial.mutate()}>
        Send a trial
      </LineButton>
      <LineButton doing={remove.isPending} onClick={() => remove.mutate()}>
        Remove
      </LineButton>
    </ListedLine>
  )
}

/** When something last got out, and what went wrong since. */
function Fares({ messenger }: { messenger: Messenger }) {
  const { sent_at, failed_at, failure, next_try_at } = messenger
  const failing = failed_at !== null && (sent_at === null || failed_at > sent_at)
  return (
    <chakra.span display="block">
      {sent_at ? `Last sent ${dayAndTime(sent_at)}.` : 'Nothing sent yet.'}{' '}
      {failed_at && (
        <chakra.span color={failing ? 'vessel' : 'soft'} fontWeight={failing ? 650 : 400}>
          Last failed {dayAndTime(failed_at)}: {failure}.
          {next_try_at && ` Will be tried again ${dayAndTime(next_try_at)}.`}
        </chakra.span>
      )}
    </chakra.span>
  )
}

/** What goes out by a messenger, by gravity. */
const GRAVITY: Record<Messenger['gravity'], string> = {
  notice: 'everything',
  alarm: 'alarms and emergencies',
  emergency: 'emergencies only',
}

const EMPTY = {
  kind: 'email' as Kind,
  name: '',
  server: '',
  port: '587',
  security: 'starttls' as const,
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

function MessengerForm({ onDone }: { onDone: () => void }) {
  const form = useForm<Said>({ defaultValues: EMPTY })
  const kind = form.watch('kind')
  const add = useAct(
    (said: Said) => answer(api.POST('/api/messengers', { body: bodyOf(said) })),
    (act) => act,
    (problem) => {
      const field = problem.fields[0]?.field.split('.').at(-1) ?? 'name'
      form.setError((field in EMPTY ? field : 'name') as keyof Said, { message: problem.detail })
    },
  )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        maxWidth="34rem"
        onSubmit={form.handleSubmit((said) => add.mutate(said, { onSuccess: onDone }))}
      >
        <SelectField
          name="kind"
          label="By"
          options={Object.entries(KINDS).map(([value, label]) => ({ value, label }))}
        />
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
            <TextField name="password" label="Password" type="password" />
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
            <TextField name="secret" label="Secret, sent as bearer token" type="password" />
          </>
        )}
        {kind !== 'shelf' && (
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
        <TextField
          name="life"
          label="Sign of life every day at"
          type="time"
          help="Left empty there is none. When it does not come, Sandboa does not run."
        />
        <chakra.div display="grid" gridTemplateColumns="1fr 1fr" columnGap={4}>
          <TextField name="quietFrom" label="Quiet from" type="time" />
          <TextField name="quietUntil" label="until" type="time" />
        </chakra.div>
        <Button type="submit" variant="act" disabled={add.isPending}>
          Record
        </Button>
      </chakra.form>
    </FormProvider>
  )
}

function bodyOf(said: Said): Schemas['MessengerAsked'] {
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
    zone: zone(),
    quiet_from_min: minuteOf(said.quietFrom),
    quiet_until_min: minuteOf(said.quietUntil),
    gravity: said.gravity,
    life_at_min: minuteOf(said.life),
    target,
  }
}

/** Minutes after midnight of "22:00"; null when left empty. */
export function minuteOf(text: string): number | null {
  const [hours, minutes] = text.split(':').map(Number)
  return text && hours !== undefined && minutes !== undefined ? hours * 60 + minutes : null
}

/** "quiet 22:00 to 07:00", or nothing. */
export function quietInWords(
  messenger: Pick<Messenger, 'quiet_from_min' | 'quiet_until_min'>,
): string | null {
  const { quiet_from_min: from, quiet_until_min: until } = messenger
  if (from === null || until === null || from === until) return null
  return `quiet ${clock(from)} to ${clock(until)}`
}

function clock(minute: number): string {
  return `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
}

function Sent() {
  const messages = useQuery({
    queryKey: ['messages'],
    queryFn: () => answer(api.GET('/api/messengers/messages')),
  })
  if (!messages.data?.length) return null
  return (
    <chakra.div mt={6}>
      <chakra.h3 fontWeight={700} mb={1}>
        Sent lately
      </chakra.h3>
      <chakra.ul listStyleType="none">
        {messages.data.slice(0, 8).map((message) => (
          <chakra.li
            key={`${message.at}-${message.text}-${message.messenger}`}
            py={1}
            borderTop="1px solid"
            borderColor="line"
          >
            {dayAndTime(message.at)}, {message.messenger}: {message.text}
            <chakra.span display="block" color={message.sent ? 'soft' : 'vessel'} fontSize="0.92em">
              {message.sent ? message.outcome : `Not sent: ${message.outcome}`}
            </chakra.span>
          </chakra.li>
        ))}
      </chakra.ul>
    </chakra.div>
  )
}
