import { chakra, NativeSelect } from '@chakra-ui/react'
import { useId } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { Button } from '@/shared/ui/Button'
import { boxInWords } from './inWords'
import { useMoveBox } from './useMoveBox'

/** The chosen box in words, its page, and the way to any shelf of any cabinet. */
export function ChosenBox({
  cabinet,
  cabinets,
  code,
}: {
  cabinet: Schemas['CabinetResponse']
  cabinets: Schemas['CabinetListedResponse'][]
  code: string | null
}) {
  const move = useMoveBox()
  const field = useId()
  const shelf = cabinet.shelves.find((s) => s.boxes.some((b) => b.code === code))
  const box = shelf?.boxes.find((b) => b.code === code)
  if (!shelf || !box) return null
  const here = `${cabinet.name}/${shelf.name}`
  return (
    <chakra.div mt={4} display="flex" flexWrap="wrap" alignItems="center" gap={3} role="status">
      <chakra.p flex="1 1 18rem">
        {boxInWords(box)}
        {box.water_left &&
          `, losing about ${box.water_left.loss_g_day.toFixed(1)} g a day; weighing it would tell`}
        .
      </chakra.p>
      <Button asChild size="small">
        <Link to={`/clutches/${box.code}`}>Open {box.code}</Link>
      </Button>
      <chakra.div display="flex" alignItems="center" gap={2}>
        <label htmlFor={field}>Stands on</label>
        <NativeSelect.Root width="210px">
          <NativeSelect.Field
            id={field}
            value={here}
            onChange={(event) => {
              const [to, on] = event.target.value.split('/')
              if (to && on) move.mutate({ code: box.code, cabinet: to, shelf: on })
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
      </chakra.div>
    </chakra.div>
  )
}
