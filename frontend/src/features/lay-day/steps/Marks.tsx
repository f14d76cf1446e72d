import { HStack, Text } from '@chakra-ui/react'
import { EggDrawing } from '@/eggs/EggDrawing'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'

/** Tops are marked where the eggs lie, before any is moved. */
export function Marks({ day, step, back, next }: StepProps) {
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      nextLabel="All marked"
      onSubmit={(event) => {
        event.preventDefault()
        next({ marked: true })
      }}
    >
      <HStack gap={6} wrap="wrap">
        <EggDrawing egg={{ number: 1, grade: 0, topMark: 'top' }} size={150} decorative />
        <Text flex="1" minWidth="min(13.75rem, 100%)" fontSize="lead">
          A small line on the highest point of every egg, where it lies, <strong>before</strong> you
          move it. From now on that point stays up: within a day the embryo holds on to it.
        </Text>
      </HStack>
      <Text color="soft">Slowly, no knocks, no breath on the eggs.</Text>
    </StepFrame>
  )
}
