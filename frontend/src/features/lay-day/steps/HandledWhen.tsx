import { Field, Flex, Input, Span } from '@chakra-ui/react'
import { useState } from 'react'
import { dayAndTime, fromInputMoment, inputMoment } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import type { LayDay, State } from '../steps'

/**
 * When the eggs were candled, turned and handled: their lay time, unless somebody says otherwise.
 * Never the moment of typing, which may be a week later.
 */
export function HandledWhen({
  day,
  change,
}: {
  day: LayDay
  change: (changed: Partial<State>) => void
}) {
  const [typing, setTyping] = useState(false)
  const { handled_at, laid_at } = day.state
  const problem =
    handled_at && Date.parse(handled_at) < Date.parse(laid_at)
      ? 'That is before the eggs were laid.'
      : handled_at && Date.parse(handled_at) > Date.now() + 60_000
        ? 'That is still to come.'
        : null
  return (
    <Flex wrap="wrap" align="center" columnGap={3}>
      <Span color="soft">
        {handled_at
          ? `Counts as seen and done ${dayAndTime(handled_at)}.`
          : `Counts as seen and done when they were laid, ${dayAndTime(laid_at)}.`}
      </Span>
      {!typing && (
        <Button type="button" variant="bare" size="small" px={0} onClick={() => setTyping(true)}>
          It was later
        </Button>
      )}
      {typing && (
        <Field.Root invalid={!!problem} maxWidth="20rem">
          <Field.Label>Seen and done at</Field.Label>
          <Input
            type="datetime-local"
            value={inputMoment(handled_at ?? laid_at)}
            onChange={(event) => {
              const text = event.target.value
              if (text) change({ handled_at: fromInputMoment(text) })
            }}
          />
          {problem && <Field.ErrorText>{problem}</Field.ErrorText>}
        </Field.Root>
      )}
    </Flex>
  )
}
