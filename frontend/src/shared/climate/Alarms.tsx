import { chakra, Span, Stack, Strong } from '@chakra-ui/react'
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
  return (
    <Stack as="ul" gap={2}>
      {byGravity(alarms).map((alarm) => (
        <OpenAlarm key={alarm.id} alarm={alarm} showCabinet={showCabinet} />
      ))}
    </Stack>
  )
}

/** How loudly an alarm is shown: a notice and what was seen already are quiet. */
const LOOKS = {
  quiet: { line: { borderColor: 'soft' }, word: { color: 'ink' }, button: {} },
  grave: {
    line: { borderColor: 'vessel', bg: 'vesselSoft' },
    word: { color: 'vessel' },
    button: {},
  },
  gravest: {
    line: { borderColor: 'vessel', bg: 'vessel', color: 'paper', fontWeight: 'semibold' },
    word: { color: 'paper' },
    button: { color: 'paper', borderColor: 'paper' },
  },
} as const

function lookOf(alarm: Alarm): keyof typeof LOOKS {
  if (alarm.severity === 'notice' || alarm.acknowledged_at) return 'quiet'
  return alarm.severity === 'emergency' ? 'gravest' : 'grave'
}

function OpenAlarm({ alarm, showCabinet }: { alarm: Alarm; showCabinet: boolean }) {
  const acknowledge = useAcknowledge()
  const look = LOOKS[lookOf(alarm)]
  return (
    <chakra.li
      display="flex"
      flexWrap="wrap"
      alignItems="center"
      columnGap={4}
      rowGap={1}
      borderStart="6px solid"
      ps={4}
      pe={2}
      py={1}
      {...look.line}
    >
      <Span flex="1" minWidth="min(15rem, 100%)">
        <Strong fontWeight="heavy" {...look.word}>
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
          disabled={acknowledge.isPending}
          onClick={() => acknowledge.mutate(alarm.id)}
          aria-label={`Seen: ${alarm.text}`}
          {...look.button}
        >
          Seen
        </Button>
      )}
    </chakra.li>
  )
}
