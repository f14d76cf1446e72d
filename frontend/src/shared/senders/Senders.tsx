import { Stack } from '@chakra-ui/react'
import type { Schemas } from '../api/client'
import { dayAndTime } from '../dates'
import { sentence } from '../sentence'
import { Notice } from '../ui/page'

/** What hinders readings on their way in: a broker that is not there, messages that are refused. */
export default function Senders({ today }: { today: Schemas['TodayResponse'] }) {
  const { broker_problem, refused_senders, weak_senders } = today
  if (!broker_problem && refused_senders.length + weak_senders.length === 0) return null
  return (
    <Stack gap={2} my={3}>
      {broker_problem && (
        <Notice urgent label="No readings by MQTT">
          {broker_problem}
        </Notice>
      )}
      {weak_senders.map((weak) => (
        <Notice key={weak.name} label={weak.name}>
          {sentence(weak.reason)}
        </Notice>
      ))}
      {refused_senders.map((refused) => (
        <Notice key={refused.device} label="Refused">
          What {refused.device} sent {dayAndTime(refused.at)} was not taken.{' '}
          {sentence(refused.reason)}
        </Notice>
      ))}
    </Stack>
  )
}
