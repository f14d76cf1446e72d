import { chakra, HStack, Span, Text } from '@chakra-ui/react'
import { EggDrawing } from '@/eggs/EggDrawing'
import { dayAndTime } from '@/shared/dates'
import { Choices } from '@/shared/ui/Choices'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'
import { happened, withEvent } from '../steps'
import { HandledWhen } from './HandledWhen'

/** Eggs whose disc is not on top: turned once within a day, never after. */
export function Turning({ day, step, back, change, next }: StepProps) {
  const { eggs } = day.state
  const turning = day.turning.flatMap((advice, i) => {
    const egg = eggs[i]
    return advice && egg ? [{ advice, egg, number: i + 1 }] : []
  })
  const answered = turning.every(
    ({ egg }) => happened(egg, 'turned') || happened(egg, 'left as it lies'),
  )
  const answer = (number: number, kind: 'turned' | 'left as it lies') =>
    change({
      eggs: eggs.map((egg, i) => {
        if (i !== number - 1) return egg
        const other = kind === 'turned' ? 'left as it lies' : 'turned'
        const now = new Date().toISOString()
        return withEvent(withEvent(egg, other, false, now), kind, true, now)
      }),
    })
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      {...(answered && { nextLabel: 'Next' })}
      onSubmit={(event) => {
        event.preventDefault()
        if (answered) next()
      }}
    >
      <HandledWhen day={day} change={change} />
      {turning.map(({ advice, egg, number }) => (
        <chakra.section key={number} aria-label={`Egg ${number}`}>
          <HStack gap={4} mb={3}>
            <EggDrawing
              egg={{
                number,
                grade: 0,
                candled: {
                  vessels:
                    egg.vessels === 'none' || egg.vessels === 'weak' ? egg.vessels : 'strong',
                  disc: happened(egg, 'turned') ? 'top' : (egg.disc ?? 'top'),
                },
              }}
              size={110}
              decorative
            />
            <Text flex="1">
              <strong>Egg {number}.</strong> {advice.text}
              {advice.turn && <Span color="soft"> Possible until {dayAndTime(advice.until)}.</Span>}
            </Text>
          </HStack>
          <Choices
            legend={`Egg ${number}: what did you do?`}
            hideLegend
            columns={2}
            choices={[
              ...(advice.turn
                ? [{ value: 'turned' as const, label: 'Turned once, new top marked' }]
                : []),
              { value: 'left as it lies' as const, label: 'Left as it lies' },
            ]}
            value={
              happened(egg, 'turned')
                ? 'turned'
                : happened(egg, 'left as it lies')
                  ? 'left as it lies'
                  : null
            }
            onChoose={(kind) => answer(number, kind)}
          />
        </chakra.section>
      ))}
      {turning.length === 0 && <Text>Every disc is on top: nothing to turn.</Text>}
    </StepFrame>
  )
}
