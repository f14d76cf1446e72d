import { HStack, NativeSelect, Text } from '@chakra-ui/react'
import { useId } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { boxInWords } from './inWords'
import { PutAway } from './OtherSpecies'
import { useMoveBox } from './useMoveBox'

/** The chosen box in words, its page, and the way to any shelf of any cabinet. */
export function ChosenBox({
  cabinet,
  cabinets,
  name,
}: {
  cabinet: Schemas['CabinetResponse']
  cabinets: Schemas['CabinetListedResponse'][]
  name: string | null
}) {
  const move = useMoveBox()
  const field = useId()
  const shelf = cabinet.shelves.find((s) => s.boxes.some((b) => b.name === name))
  const box = shelf?.boxes.find((b) => b.name === name)
  if (!shelf || !box) return null
  const here = `${cabinet.name}/${shelf.name}`
  return (
    <HStack mt={4} wrap="wrap" gap={3} role="status">
      <Text flex="1 1 18rem">
        {boxInWords(box)}
        {box.water_left &&
          `, losing about ${box.water_left.loss_g_day.toFixed(1)} g a day; weighing it would tell`}
        .
      </Text>
      {box.clutches.map(({ code }) => (
        <Button key={code} asChild size="small">
          <Link to={`/clutches/${code}`}>Open {code}</Link>
        </Button>
      ))}
      <HStack gap={2}>
        <label htmlFor={field}>Stands on</label>
        <NativeSelect.Root width="13.125rem">
          <NativeSelect.Field
            id={field}
            value={here}
            onChange={(event) => {
              const [to, on] = event.target.value.split('/')
              if (to && on) move.mutate({ name: box.name, cabinet: to, shelf: on })
            }}
          >
            {cabinets.flatMap((c) =>
              c.shelves.map((s) => (
                <option key={`${c.name}/${s}`} value={`${c.name}/${s}`}>
                  {c.name}, {s}
                </option>
              )),
            )}
          </NativeSelect.Field>
          <NativeSelect.Indicator />
        </NativeSelect.Root>
      </HStack>
      {box.species && <PutAway name={box.name} />}
      <When label="Moved" />
    </HStack>
  )
}
