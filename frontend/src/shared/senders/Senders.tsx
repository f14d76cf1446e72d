import type { Schemas } from '../api/client'
import { dayAndTime } from '../dates'
import { Notice } from '../ui/page'

/** What hinders readings on their way in: a broker that is not there, messages that are refused. */
export function Senders({ today }: { today: Schemas['TodayResponse'] }) {
  return (
    <>
      {today.broker_problem && (
        <Notice urgent label="No readings by MQTT">
          {today.broker_problem}
        </Notice>
      )}
      {today.refused_senders.map((refused) => (
        <Notice key={refused.device} label="Refused">
          What {refused.device} sent {dayAndTime(refused.at)} was not taken: {refused.reason}
        </Notice>
      ))}
    </>
  )
}
