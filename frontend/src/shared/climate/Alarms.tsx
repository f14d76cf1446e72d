import { chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { inKeepersUnit, useTemperatureUnit } from '@/shared/units'
import { useAcknowledge } from './useAlarms'

type Alarm = Schemas['AlarmTold']

const WORDS = { emergency: 'Emergency', alarm: 'Alarm', notice: 'Notice' } as const

/** Alarms open now, each with the way to say it was seen. */
export function Alarms({ alarms, showCabinet }: { alarms: Alarm[]; showCabinet: boolean }) {
  const unit = useTemperatureUnit()
  const acknowledge = useAcknowledge()
  return (
    <chakra.ul listStyleType="none" display="flex" flexDirection="column" gap={2}>
      {alarms.map((alarm) => {
        const grave = alarm.severity !== 'notice' && !alarm.acknowledged_at
        return (
          <chakra.li
            key={alarm.id}
            display="flex"
            flexWrap="wrap"
            alignItems="center"
            columnGap={4}
            rowGap={1}
            borderStart="6px solid"
            borderColor={grave ? 'vessel' : 'soft'}
            bg={grave ? 'vesselSoft' : undefined}
            ps={4}
            pe={2}
            py={1}
          >
            <chakra.span flex="1" minWidth="15rem">
              <chakra.strong color={grave ? 'vessel' : 'ink'} me={2} fontWeight={800}>
                {WORDS[alarm.severity]}
              </chakra.strong>
              {showCabinet && <strong>{alarm.cabinet}, </strong>}
              {inKeepersUnit(alarm.text, unit)}, since {dayAndTime(alarm.began_at)}.
            </chakra.span>
            {alarm.acknowledged_at ? (
              <chakra.span color="soft" fontSize="0.92em" pe={3}>
                seen {dayAndTime(alarm.acknowledged_at)}
              </chakra.span>
            ) : (
              <Button
                type="button"
                size="small"
                disabled={acknowledge.isPending}
                onClick={() => acknowledge.mutate(alarm.id)}
                aria-label={`Seen: ${alarm.text}`}
              >
                Seen
              </Button>
            )}
          </chakra.li>
        )
      })}
    </chakra.ul>
  )
}
