import { Box, chakra, Span, Text } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api } from '@/shared/api/client'
import { useAct, useRules } from '@/shared/api/queries'
import { clockOf, dayAndTime } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { LineButton, ListedLine } from '@/shared/ui/ListedLine'
import { showProblem } from '@/shared/ui/toasts'
import { MessengerForm } from './MessengerForm'
import { GRAVITY, KINDS, type Messenger, quietInWords } from './messenger'
import { messagesQuery, messengersQuery } from './queries'

/** The ways alarms leave the house, and what was sent. */
export function Messengers() {
  const messengers = useQuery(messengersQuery)
  const [adding, setAdding] = useState(false)
  const repeat = useRules().data?.emergency_repeat_s
  return (
    <>
      <Text color="soft" mb={3}>
        Alarms go out once, outside quiet hours, and again when they are over. An emergency goes out
        at any hour and again{repeat !== undefined && ` every ${repeat / 60} minutes`} until
        somebody says it was seen.
      </Text>
      <chakra.ul mb={4}>
        {messengers.data?.map((messenger) => (
          <Line key={messenger.id} messenger={messenger} />
        ))}
      </chakra.ul>
      {adding ? (
        <MessengerForm onDone={() => setAdding(false)} />
      ) : (
        <Button type="button" onClick={() => setAdding(true)}>
          Add a channel
        </Button>
      )}
      <Sent />
    </>
  )
}

function Line({ messenger }: { messenger: Messenger }) {
  const client = useQueryClient()
  const path = { params: { path: { messenger: messenger.id } } }
  const [changing, setChanging] = useState(false)
  const remove = useAct(
    () => answer(api.DELETE('/api/messengers/{messenger}', path)),
    (act) => act,
  )
  const trial = useMutation({
    mutationFn: () => answer(api.POST('/api/messengers/{messenger}/trial', path)),
    onSuccess: () =>
      Promise.all(
        [messagesQuery, messengersQuery].map(({ queryKey }) =>
          client.invalidateQueries({ queryKey }),
        ),
      ),
    onError: (problem) => showProblem(problem.message),
  })
  return (
    <>
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
              messenger.life_at_min !== null && `sign of life at ${clockOf(messenger.life_at_min)}`,
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
        <LineButton doing={false} onClick={() => setChanging(!changing)}>
          Change
        </LineButton>
        <LineButton doing={remove.isPending} onClick={() => remove.mutate()}>
          Remove
        </LineButton>
      </ListedLine>
      {changing && (
        <chakra.li bg="faint" px={4} pt={4} pb={4} mb={2} borderRadius="small">
          <MessengerForm held={messenger} onDone={() => setChanging(false)} />
        </chakra.li>
      )}
    </>
  )
}

/** When something last got out, and what went wrong since. */
function Fares({ messenger }: { messenger: Messenger }) {
  const { sent_at, failed_at, failure, next_try_at, lacking } = messenger
  const failing = failed_at !== null && (sent_at === null || failed_at > sent_at)
  return (
    <Span display="block">
      {lacking.length > 0 && (
        <Span display="block" color="vessel" fontWeight="semibold">
          Nothing goes out: give its {lacking.join(' and ')} again, with Change. Secrets are in no
          copy of the house.
        </Span>
      )}
      {sent_at ? `Last sent ${dayAndTime(sent_at)}.` : 'Nothing sent yet.'}{' '}
      {failed_at && (
        <Span color={failing ? 'vessel' : 'soft'} fontWeight={failing ? 'semibold' : 400}>
          Last failed {dayAndTime(failed_at)}: {failure}.
          {next_try_at && ` Will be tried again ${dayAndTime(next_try_at)}.`}
        </Span>
      )}
    </Span>
  )
}

function Sent() {
  const messages = useQuery(messagesQuery)
  if (!messages.data?.length) return null
  return (
    <Box mt={6}>
      <chakra.h3 fontWeight="bold" mb={1}>
        Sent lately
      </chakra.h3>
      <ul>
        {messages.data.slice(0, 8).map((message) => (
          <chakra.li
            key={`${message.at}-${message.text}-${message.messenger}`}
            py={1}
            borderTop="1px solid"
            borderColor="line"
          >
            {dayAndTime(message.at)}, {message.messenger}: {message.text}
            <Span display="block" color={message.sent ? 'soft' : 'vessel'} fontSize="small">
              {message.sent ? message.outcome : `Not sent: ${message.outcome}`}
            </Span>
          </chakra.li>
        ))}
      </ul>
    </Box>
  )
}
