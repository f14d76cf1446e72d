import { Box, chakra, Flex, Text } from '@chakra-ui/react'
import { DndContext, MouseSensor, TouchSensor, useSensor, useSensors } from '@dnd-kit/core'
import { useRef, useState } from 'react'
import { ArrangeableBox } from '@/eggs/ArrangeableBox'
import type { PlacedEgg } from '@/eggs/places'
import { useKeys } from '@/shared/keys/useKeys'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'
import { type Egg, withClump, withEgg } from '../steps'

/** Each egg dragged or moved by arrow keys to where it lies; those that stick are joined. */
export function Places({ day, step, back, change, next }: StepProps) {
  const { eggs, method } = day.state
  const box = useRef<HTMLDivElement>(null)
  const [chosen, setChosen] = useState<number | null>(null)
  useKeys('place', 'Eggs where they lie', [
    { keys: ['ArrowLeft'], shown: 'arrow keys', what: 'move the egg, with Shift further' },
  ])
  const sensors = useSensors(
    // A few px before a drag begins, so that a tap still chooses.
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { distance: 6 } }),
  )
  const own = chosen === null ? undefined : eggs[chosen - 1]
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      nextLabel="So they lie"
      onSubmit={(event) => {
        event.preventDefault()
        next()
      }}
    >
      {/* Small enough at a desk that what to do stays in sight. */}
      <Box ref={box} maxWidth={{ md: '37.5rem' }}>
        <DndContext sensors={sensors}>
          <ArrangeableBox
            eggs={eggs.map(placed)}
            medium={method.medium}
            onGrid={method.contact === 'on a grid'}
            frame={() => ({
              width: box.current?.clientWidth ?? 1,
              height: box.current?.clientHeight ?? 1,
            })}
            chosen={chosen}
            onChoose={setChosen}
            onMove={(number, x, y) =>
              change({ eggs: withEgg(eggs, number, { x: inside(x), y: inside(y) }) })
            }
          />
        </DndContext>
      </Box>
      {own && chosen !== null ? (
        <Box role="group" aria-label={`Egg ${chosen} sticks to`}>
          <Text fontWeight="semibold" mb={2}>
            Egg {chosen} sticks to
          </Text>
          <Flex wrap="wrap" gap={2}>
            {eggs.map((egg, i) => {
              const number = i + 1
              if (number === chosen) return null
              const together = own.clump != null && egg.clump === own.clump
              return (
                <chakra.button
                  key={number}
                  type="button"
                  aria-pressed={together}
                  aria-label={`Egg ${number}`}
                  onClick={() => change({ eggs: withClump(eggs, chosen, number, !together) })}
                  width="3.25rem"
                  height="3.25rem"
                  borderRadius="small"
                  border="2px solid"
                  borderColor={together ? 'ink' : 'line'}
                  bg={together ? 'sheet' : 'transparent'}
                  boxShadow={together ? 'inset 0 -4px 0 0 currentColor' : undefined}
                  fontSize="large"
                  fontWeight="bold"
                  cursor="pointer"
                >
                  {number}
                </chakra.button>
              )
            })}
          </Flex>
        </Box>
      ) : (
        <Text color="soft">
          Drag each egg to where it lies, or choose it and use the arrow keys. Tap one to say which
          others it sticks to.
        </Text>
      )}
    </StepFrame>
  )
}

/** An egg of the draft as the drawing wants it. */
export function placed(egg: Egg, index: number): PlacedEgg {
  return {
    number: index + 1,
    x: egg.x,
    y: egg.y,
    slug: egg.slug,
    shells: egg.shells,
    clump: egg.clump ?? null,
    grade: 0,
    topMark: 'top',
  }
}

/** Eggs stay in the box: their middle keeps a little off the wall. */
function inside(share: number): number {
  return Math.round(Math.min(0.93, Math.max(0.07, share)) * 1000) / 1000
}
