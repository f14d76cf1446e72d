import { Box, chakra, Span } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'

/** Alarms that are over: what they said, how long they stood, whether somebody saw them. */
export function AlarmLog({ alarms }: { alarms: Schemas['AlarmResponse'][] }) {
  if (alarms.length === 0) return null
  return (
    <Box mt={6}>
      <chakra.h3 fontWeight="bold" mb={1}>
        Alarms that are over
      </chakra.h3>
      <ul>
        {alarms.slice(0, 12).map((alarm) => (
          <chakra.li key={alarm.id} py={1} borderTop="1px solid" borderColor="line">
            {alarm.text}
            <Span display="block" color="soft" fontSize="small">
              {dayAndTime(alarm.began_at)} to {alarm.ended_at && dayAndTime(alarm.ended_at)},{' '}
              {alarm.acknowledged_at
                ? `seen ${dayAndTime(alarm.acknowledged_at)}`
                : 'seen by nobody'}
            </Span>
          </chakra.li>
        ))}
      </ul>
    </Box>
  )
}
