import { Box, chakra, Grid, Text } from '@chakra-ui/react'
import {
  DndContext,
  type DragEndEvent,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import type { ReactNode } from 'react'
import { EggDrawing } from '@/eggs/EggDrawing'
import { type Egg, movedOn } from '../steps'

/** The boxes side by side: an egg goes to another by drag, or to the next one by a tap. */
export function SplitEggs({
  names,
  eggs,
  onChange,
}: {
  names: string[]
  eggs: Egg[]
  onChange: (eggs: Egg[]) => void
}) {
  const sensors = useSensors(
    // A few px before a drag begins, so that a tap still moves the egg on.
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { distance: 6 } }),
  )
  const put = (at: number, box: number) =>
    onChange(eggs.map((egg, i) => (i === at ? { ...egg, box } : egg)))
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over) put(Number(active.id), Number(over.id))
  }
  return (
    <DndContext sensors={sensors} onDragEnd={dropped}>
      <Grid templateColumns={{ base: '1fr', md: 'repeat(2, 1fr)' }} gap={3}>
        {names.map((name, box) => (
          <Half key={name} box={box} name={name}>
            {eggs.map(
              (egg, at) =>
                (egg.box ?? 0) === box && (
                  <Movable
                    key={at}
                    at={at}
                    egg={egg}
                    to={names[movedOn(egg, names.length)] ?? ''}
                    onMove={() => put(at, movedOn(egg, names.length))}
                  />
                ),
            )}
          </Half>
        ))}
      </Grid>
      <Text color="soft" fontSize="small" mt={1}>
        Tap an egg to put it into the next box, or drag it there.
      </Text>
    </DndContext>
  )
}

function Half({ box, name, children }: { box: number; name: string; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: box })
  return (
    <chakra.section
      ref={setNodeRef}
      aria-label={`Eggs in box ${name}`}
      border="2.5px solid"
      borderColor={isOver ? 'yolkInk' : 'soft'}
      borderRadius="tray"
      bg="tray"
      p={3}
    >
      <Text fontWeight="bold">{name}</Text>
      <Box display="flex" flexWrap="wrap" gap={1} minHeight="4rem">
        {children}
      </Box>
    </chakra.section>
  )
}

function Movable({
  at,
  egg,
  to,
  onMove,
}: {
  at: number
  egg: Egg
  to: string
  onMove: () => void
}) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: at })
  const what = egg.slug ? 'Slug' : 'Egg'
  return (
    <chakra.button
      ref={setNodeRef}
      type="button"
      {...listeners}
      aria-label={`${what} ${at + 1}: put it into ${to}`}
      onClick={onMove}
      cursor="grab"
      touchAction="none"
      minWidth="thumb"
      minHeight="thumb"
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <EggDrawing
        egg={{ number: at + 1, slug: egg.slug, shells: egg.shells, grade: 0 }}
        size={72}
        showNumber
        decorative
      />
    </chakra.button>
  )
}
