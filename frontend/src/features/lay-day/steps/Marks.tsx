import { chakra } from '@chakra-ui/react'
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
      <chakra.div display="flex" alignItems="center" gap={6} flexWrap="wrap">
        <EggDrawing egg={{ number: 1, grade: 0, topMark: 'top' }} size={150} decorative />
        <chakra.p flex="1" minWidth="220px" fontSize="1.1em">
          A small line on the highest point of every egg, where it lies, <strong>before</strong> you
          move it. From now on that point stays up: within a day the embryo holds on to it.
        </chakra.p>
      </chakra.div>
      <chakra.p color="soft">Slowly, no knocks, no breath on the eggs.</chakra.p>
    </StepFrame>
  )
}
