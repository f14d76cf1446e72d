import { chakra, Span, Text } from '@chakra-ui/react'
import { useId } from 'react'
import { dayAndTime, fullMoment, inputMoment } from '@/shared/dates'
import { Choices } from '@/shared/ui/Choices'

export type When = { hoursAgo: number } | { moment: string }

const AGO = [
  { value: '0', label: 'now' },
  { value: '1', label: '1 h ago' },
  { value: '3', label: '3 h ago' },
  { value: '6', label: '6 h ago' },
  { value: '12', label: '12 h ago' },
  { value: 'other', label: 'other' },
]

/** The moment meant, as the API wants it; nothing for now, which the house knows best. */
export function momentOf(when: When, asOf: string): string | null {
  if ('moment' in when) return when.moment ? new Date(when.moment).toISOString() : null
  if (when.hoursAgo === 0) return null
  return new Date(Date.parse(asOf) - when.hoursAgo * 3_600_000).toISOString()
}

/** When what is tapped was seen: now, or another time that stays until it is changed. */
export function SeenWhen({
  when,
  asOf,
  onChange,
}: {
  when: When
  asOf: string
  onChange: (when: When) => void
}) {
  const field = useId()
  const typed = 'moment' in when
  return (
    <div>
      <Choices
        legend="Time of what you record"
        columns={{ base: 3, md: 6 }}
        choices={AGO}
        value={typed ? 'other' : String(when.hoursAgo)}
        onChoose={(value) =>
          onChange(value === 'other' ? { moment: inputMoment(asOf) } : { hoursAgo: Number(value) })
        }
      />
      {(typed || when.hoursAgo !== 0) && (
        <Text role="status" mt={2} fontWeight="semibold">
          Whatever you tap is recorded for {dayAndTime(momentOf(when, asOf) ?? asOf)}, until you
          choose "now".
        </Text>
      )}
      {typed && (
        <chakra.label htmlFor={field} display="block" mt={3}>
          Seen at
          <chakra.input
            id={field}
            type="datetime-local"
            value={when.moment}
            onChange={(event) => onChange({ moment: event.target.value })}
            display="block"
            minHeight="thumb"
            mt={1}
            px={3}
            bg="sheet"
            border="1.5px solid"
            borderColor="soft"
            borderRadius="small"
          />
          {when.moment && (
            <Span color="soft" fontSize="small">
              {fullMoment(when.moment)}
            </Span>
          )}
        </chakra.label>
      )}
    </div>
  )
}
