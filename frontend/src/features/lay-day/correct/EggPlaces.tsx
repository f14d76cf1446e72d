import { HStack, Strong, Text } from '@chakra-ui/react'
import { DndContext, MouseSensor, TouchSensor, useSensor, useSensors } from '@dnd-kit/core'
import { useQueryClient } from '@tanstack/react-query'
import { type ComponentProps, useRef, useState } from 'react'
import { useFormContext } from 'react-hook-form'
import { ArrangeableBox } from '@/eggs/ArrangeableBox'
import type { Problem, Schemas } from '@/shared/api/client'
import { ShellChips } from '@/shared/shells/ShellChips'
import type { Shell } from '@/shared/shells/shells'
import { TextField } from '@/shared/ui/fields'
import { Tick } from '@/shared/ui/Tick'
import { suggestionQuery } from '../queries'
import { countOf, type LaidEgg, type LayValues } from './values'

/** Counting the eggs ("7-2") and placing them: dragged, or moved with the arrow keys. */
export function EggPlaces({ choices: { media } }: { choices: Schemas['ChoicesResponse'] }) {
  const form = useFormContext<LayValues>()
  const client = useQueryClient()
  const [chosen, setChosen] = useState<number | null>(null)
  const refusal = useRef('Count: fill this in.')
  const sensors = useSensors(
    // A few px before a drag begins, so that a tap still chooses.
    useSensor(MouseSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { distance: 6 } }),
  )
  const eggs = form.watch('eggs')
  const medium = form.watch('medium')

  const read = async (count: string) => {
    if (!count.trim()) return
    try {
      const told = await client.fetchQuery(suggestionQuery(count))
      form.clearErrors('count')
      if (countOf(form.getValues('eggs')) !== `${told.laid}-${told.slugs}`) {
        form.setValue('eggs', told.eggs as LaidEgg[])
        setChosen(null)
      }
    } catch (problem) {
      refusal.current = (problem as Problem).detail
      form.setError('count', { message: refusal.current })
      form.setValue('eggs', [])
    }
  }
  const change = (number: number, changed: Partial<LaidEgg>) => {
    const next = form
      .getValues('eggs')
      .map((egg, i) => (i === number - 1 ? { ...egg, ...changed } : egg))
    form.setValue('eggs', next)
    form.setValue('count', countOf(next))
  }
  const placed = eggs.map((egg, i) => ({ ...egg, number: i + 1, grade: 0 }))
  const first = form.watch('box')
  const boxes = [...new Set(eggs.map((egg) => egg.box ?? first))]

  return (
    <div>
      <TextField
        name="count"
        label="Count: total laid, then slugs, like 7-2"
        inputMode="text"
        required
        onTyped={read}
        check={() => form.getValues('eggs').length > 0 || refusal.current}
      />
      {eggs.length > 0 && (
        <>
          <DndContext sensors={sensors}>
            {boxes.map((box) => (
              <OneBox
                key={box}
                name={boxes.length > 1 ? box : null}
                eggs={placed.filter((egg) => (egg.box ?? first) === box)}
                medium={medium}
                onGrid={media.some((m) => m.name === medium && m.on_grid)}
                chosen={chosen}
                onChoose={setChosen}
                onMove={(number, x, y) => change(number, { x: inside(x), y: inside(y) })}
              />
            ))}
          </DndContext>
          {chosen && eggs[chosen - 1] ? (
            <ChosenEgg
              number={chosen}
              egg={eggs[chosen - 1] as LaidEgg}
              onChange={(changed) => change(chosen, changed)}
            />
          ) : (
            <Text color="soft" mt={2}>
              Drag each egg to where it lies; tap one to mark it a slug or name its shell.
            </Text>
          )}
        </>
      )}
    </div>
  )
}

/** One box of the clutch, named where it was laid into several. */
function OneBox({
  name,
  ...drawing
}: { name: string | null } & Omit<ComponentProps<typeof ArrangeableBox>, 'frame'>) {
  const frame = useRef<HTMLDivElement>(null)
  return (
    <div>
      {name && <Text fontWeight="bold">Box {name}</Text>}
      <div ref={frame}>
        <ArrangeableBox
          {...drawing}
          frame={() => ({
            width: frame.current?.clientWidth ?? 1,
            height: frame.current?.clientHeight ?? 1,
          })}
        />
      </div>
    </div>
  )
}

function ChosenEgg({
  number,
  egg,
  onChange,
}: {
  number: number
  egg: LaidEgg
  onChange: (changed: Partial<LaidEgg>) => void
}) {
  return (
    <HStack mt={3} gap={4} wrap="wrap" role="group" aria-label={`Egg ${number}`}>
      <Strong fontSize="large">Egg {number}</Strong>
      <Tick label="slug" checked={egg.slug} onChange={(slug) => onChange({ slug })} />
      <ShellChips
        legend={`Shell of egg ${number}; smooth where none is on`}
        shells={egg.shells as Shell[]}
        onChange={(shells) => onChange({ shells })}
      />
    </HStack>
  )
}

/** Eggs stay in the box: their middle keeps a little off the wall. */
function inside(share: number): number {
  return Math.round(Math.min(0.93, Math.max(0.07, share)) * 1000) / 1000
}
