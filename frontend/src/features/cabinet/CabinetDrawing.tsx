import { Box, chakra, Flex, Span, Text } from '@chakra-ui/react'
import {
  DndContext,
  type DragEndEvent,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import { type KeyboardEvent, useId } from 'react'
import { BoxFromSide } from '@/eggs/BoxFromSide'
import type { Schemas } from '@/shared/api/client'
import { asSmallLook } from '@/shared/api/eggLook'
import { useRules } from '@/shared/api/queries'
import { useKeys } from '@/shared/keys/useKeys'
import { isPressing } from '@/shared/rounds/urgency'
import { difference, temperature, useTemperatureUnit } from '@/shared/units'
import { boxInWords, sourceInWords } from './inWords'
import { ProbeMarks } from './probes/ProbeMarks'
import { useMoveBox } from './useMoveBox'

type Cabinet = Schemas['CabinetResponse']
type Shelf = Schemas['ShelfResponse']
type BoxHere = Schemas['BoxHereResponse']

/** Only at the very edge of the screen: a shelf near it must not run away from under the hand. */
const SCROLLS_AT_EDGE = { threshold: { x: 0, y: 0.05 } }

/**
 * A cross-section: shelves from top to bottom, boxes where they stand, probes where they hang.
 * Boxes are dragged from shelf to shelf, or moved with the arrow keys.
 */
export function CabinetDrawing({
  cabinet,
  chosen,
  onChoose,
}: {
  cabinet: Cabinet
  chosen: string | null
  onChoose: (name: string) => void
}) {
  const move = useMoveBox()
  // A tap chooses a box; only a real pull moves it.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 8 } }))
  const to = (name: string, shelf: string) => move.mutate({ name, cabinet: cabinet.name, shelf })
  const dropped = ({ active, over }: DragEndEvent) => {
    const [name, shelf] = [String(active.id), over && String(over.id)]
    const stands = cabinet.shelves.find((s) => s.boxes.some((b) => b.name === name))
    if (shelf && stands && shelf !== stands.name) to(name, shelf)
  }
  const step = (box: BoxHere, shelf: Shelf, event: KeyboardEvent) => {
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key]
    if (!by) return
    event.preventDefault()
    const next = cabinet.shelves[cabinet.shelves.indexOf(shelf) + by]
    if (next) to(box.name, next.name)
  }
  useKeys('place', 'Boxes on their shelves', [
    { keys: ['ArrowUp', 'ArrowDown'], shown: 'up, down', what: 'move the box to another shelf' },
  ])
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={dropped}
      autoScroll={SCROLLS_AT_EDGE}
      accessibility={{ container: document.body }}
    >
      <Box
        border="4px solid"
        borderColor="ink"
        borderRadius="tray"
        bg="sheet"
        overflow="hidden"
        position="relative"
      >
        <Top cabinet={cabinet} />
        {cabinet.shelves.map((shelf) => (
          <ShelfRow
            key={shelf.name}
            cabinet={cabinet}
            shelf={shelf}
            chosen={chosen}
            onChoose={onChoose}
            onKey={(box, event) => step(box, shelf, event)}
          />
        ))}
      </Box>
      <Text color="soft" fontSize="small" mt={2}>
        Drag a box to another shelf, or choose it and use the arrow keys. Blue is the water left by
        the way the box is closed; the dashed line is how low it may be.
      </Text>
    </DndContext>
  )
}

/** The space under the cabinet's ceiling, where its own probes hang. */
function Top({ cabinet }: { cabinet: Cabinet }) {
  const own = cabinet.probes.filter((probe) => probe.kind === 'cabinet')
  return (
    <Flex minHeight="1.875rem" px={4} align="flex-start" gap={4}>
      <ProbeMarks probes={own} />
    </Flex>
  )
}

function ShelfRow({
  cabinet,
  shelf,
  chosen,
  onChoose,
  onKey,
}: {
  cabinet: Cabinet
  shelf: Shelf
  chosen: string | null
  onChoose: (name: string) => void
  onKey: (box: BoxHere, event: KeyboardEvent) => void
}) {
  const unit = useTemperatureUnit()
  const heading = useId()
  const { setNodeRef, isOver } = useDroppable({ id: shelf.name })
  const hanging = cabinet.probes.filter(
    (probe) => probe.kind === 'shelf' && probe.place === `${cabinet.name}, ${shelf.name}`,
  )
  const { here } = shelf
  const fine = useRules().data?.climate.fine_off_c
  const far =
    here.temperature_c !== null &&
    cabinet.set_point_c !== null &&
    fine !== undefined &&
    Math.abs(here.temperature_c - cabinet.set_point_c) > fine
  return (
    <chakra.section
      ref={setNodeRef}
      aria-labelledby={heading}
      display="grid"
      gridTemplateColumns={{ base: '5.75rem 1fr', md: '8.125rem 1fr' }}
      columnGap={{ base: 3, md: 5 }}
      px={{ base: 3, md: 4 }}
      borderBottom="7px solid"
      borderColor={isOver ? 'yolkInk' : 'soft'}
      bg={isOver ? 'faint' : undefined}
      _last={{ borderBottomColor: isOver ? 'yolkInk' : 'transparent' }}
    >
      <Box alignSelf="end" pb={2} lineHeight={1.15}>
        <chakra.h2 id={heading} fontWeight="semibold">
          {shelf.name}
        </chakra.h2>
        <Box fontSize="large" fontWeight="heavy" whiteSpace="var(--one-line)">
          {here.temperature_c === null ? '–' : temperature(here.temperature_c, unit)}
          {far && (
            <Span
              title={`More than ${difference(fine ?? 0, unit)} off the set point`}
              color="yolkInk"
            >
              {' '}
              ±
            </Span>
          )}
        </Box>
        <Box color="soft" fontSize="fine">
          {sourceInWords(here.source)}
        </Box>
      </Box>
      <Flex minHeight={{ base: '6.5rem', md: '9.375rem' }} direction="column">
        <ProbeMarks probes={hanging} />
        <Flex wrap="wrap" gap={{ base: 3, md: 6 }} align="flex-end" mt="auto" pt={2}>
          {shelf.boxes.map((box) => (
            <BoxOnShelf
              key={box.name}
              box={box}
              probes={cabinet.probes.filter((p) => p.place === `box ${box.name}`)}
              chosen={chosen === box.name}
              onChoose={() => onChoose(box.name)}
              onKey={(event) => onKey(box, event)}
            />
          ))}
        </Flex>
      </Flex>
    </chakra.section>
  )
}

function BoxOnShelf({
  box,
  probes,
  chosen,
  onChoose,
  onKey,
}: {
  box: BoxHere
  probes: Schemas['HungProbeResponse'][]
  chosen: boolean
  onChoose: () => void
  onKey: (event: KeyboardEvent) => void
}) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: box.name })
  const trouble = isPressing(box.urgency)
  const [first] = box.clutches
  const percent = first ? `${Math.round(first.fraction * 100)} %` : (box.species ?? '')
  return (
    <chakra.button
      ref={setNodeRef}
      type="button"
      {...listeners}
      aria-label={`${box.name} ${percent}: ${boxInWords(box)}. Up and down keys move it to another shelf.`}
      aria-pressed={chosen}
      onClick={onChoose}
      onKeyDown={onKey}
      display="block"
      width={{ base: '7.625rem', md: '11.875rem' }}
      textAlign="center"
      cursor={isDragging ? 'grabbing' : 'grab'}
      position="relative"
      zIndex={isDragging ? 3 : undefined}
      touchAction="none"
      outline={chosen ? '3px solid' : undefined}
      outlineColor="yolkInk"
      outlineOffset="2px"
      borderRadius="small"
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <ProbeMarks probes={probes} />
      <Span display="block" fontWeight="bold" lineHeight={1.1}>
        {box.name}
        <Span color="soft" fontWeight="medium" fontSize="small">
          {' '}
          {percent}
        </Span>
      </Span>
      <BoxFromSide
        eggs={box.eggs.map(asSmallLook)}
        drops={box.lid}
        water={box.water_left}
        lid={box.closing === 'loose lid' || box.closing?.includes('cracked') ? 'open' : 'shut'}
        trouble={trouble}
      />
    </chakra.button>
  )
}
