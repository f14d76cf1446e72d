import { chakra, Span, Strong } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { useAcknowledge } from './useAlarms'

type Alarm = Schemas['AlarmResponse']

/** In order of gravity. */
const WORDS = { emergency: 'Emergency', alarm: 'Alarm', notice: 'Notice' } as const
const RANKS = Object.keys(WORDS)

/** The gravest first, and of these the newest. */
export function byGravity(alarms: Alarm[]): Alarm[] {
  return [...alarms].sort((a, b) => RANKS.indexOf(a.severity) - RANKS.indexOf(b.severity))
}

/** "Upper: does the fan turn? Since 8 Jun 04:10." */
export function alarmInWords(alarm: Alarm): string {
  const said = alarm.text
  return `${said}${said.endsWith('?') ? '' : '.'} Since ${dayAndTime(alarm.began_at)}.`
}

/** Alarms open now, each with the way to say it was seen. */
export function Alarms({ alarms, showCabinet }: { alarms: Alarm[]; showCabinet: boolean }) {
  const acknowledge = useAcknowledge()
  return (
    <chakra.ul display="flex" flexDirection="column" gap={2}>
      {byGravity(alarms).map((alarm) => {
        const grave = alarm.severity !== 'notice' && !alarm.acknowledged_at
        const gravest = grave && alarm.severity === 'emergency'
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
            bg={gravest ? 'vessel' : grave ? 'vesselSoft' : undefined}
            color={gravest ? 'paper' : undefined}
            fontWeight={gravest ? 'semibold' : undefined}
            ps={4}
            pe={2}
            py={1}
          >
            <Span flex="1" minWidth="min(15rem, 100%)">
              <Strong color={gravest ? 'paper' : grave ? 'vessel' : 'ink'} fontWeight="heavy">
                {WORDS[alarm.severity]}
              </Strong>{' '}
              {showCabinet && alarm.cabinet && <strong>{alarm.cabinet}, </strong>}
              {alarmInWords(alarm)}
            </Span>
            {alarm.acknowledged_at ? (
              <Span color="soft" fontSize="small" pe={3}>
                seen {dayAndTime(alarm.acknowledged_at)}
              </Span>
            ) : (
              <Button
                type="button"
                size="small"
                {...(gravest ? { color: 'paper', borderColor: 'paper' } : {})}
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
