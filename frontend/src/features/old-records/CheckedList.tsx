import { Box, Stack, Text } from '@chakra-ui/react'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import { Fetching, Notice } from '@/shared/ui/page'
import { Tick } from '@/shared/ui/Tick'
import { Doubles, NewLines, RefusedLines } from './CheckedLines'
import { NamesOfList } from './NamesOfList'
import { Options } from './Options'
import {
  type Cells,
  type CheckedLine,
  checkLines,
  type Field,
  type Line,
  type NameAnswer,
  type RecordList,
  storeLines,
} from './queries'
import { KINDS } from './words'

/** What becomes of each line of a list; what is open is answered, then all is stored in one act. */
export function CheckedList({
  list,
  animals,
  onStored,
}: {
  list: RecordList
  animals: Schemas['AnimalResponse'][]
  onStored: (summary: string) => void
}) {
  const [cells, setCells] = useState<Cells[]>(() => list.lines.map((line) => line.cells))
  const [order, setOrder] = useState<'dmy' | 'mdy' | null>(null)
  const [names, setNames] = useState<NameAnswer[]>([])
  const [doubles, setDoubles] = useState<number[]>([])
  const [without, setWithout] = useState(false)
  const body = { kind: list.kind, lines: cells, order, names, doubles }
  const check = useQuery({
    queryKey: ['record-check', body],
    retry: false,
    refetchInterval: false,
    placeholderData: keepPreviousData,
    queryFn: () => checkLines(body),
  })
  const store = useAct(storeLines, (act) => act)
  const told = check.data
  if (!told) return <Fetching problem={check.error?.message} />
  const lines = told.lines.map(
    (checked, place): Line => ({
      place,
      at: placeOf(list, place),
      cells: cells[place] ?? {},
      checked,
    }),
  )
  const of = (state: CheckedLine['state']) => lines.filter(({ checked }) => checked.state === state)
  const refused = of('refused')
  const taken = lines.filter(
    ({ place, checked }) => checked.state === 'new' || doubles.includes(place),
  )
  const open = told.order_asked || told.asked || (refused.length > 0 && !without)
  const mend = (place: number, field: Field, text: string) =>
    setCells((all) => all.with(place, { ...all[place], [field]: text }))

  const send = () => {
    // What is left out is not sent: the places of doubles move up.
    const kept = lines.filter(({ checked }) => checked.state !== 'refused')
    store.mutate(
      {
        ...body,
        // A line that is left out may be the one that proved it.
        order: told.order ?? null,
        lines: kept.map((line) => line.cells),
        doubles: kept.flatMap((line, at) => (doubles.includes(line.place) ? [at] : [])),
      },
      { onSuccess: (act) => onStored(sentence(act.summary)) },
    )
  }
  return (
    <Stack gap={6} aria-busy={check.isFetching}>
      {told.order_asked && (
        <Options
          label="In these dates, what comes first"
          options={[
            ['dmy', 'the day: 03/04 is 3 April'],
            ['mdy', 'the month: 03/04 is 4 March'],
          ]}
          value=""
          onChoose={setOrder}
        />
      )}
      <NamesOfList
        names={told.names}
        animals={animals}
        onAnswer={(answer) =>
          setNames((all) => [...all.filter((own) => !isOf(own, answer)), answer])
        }
      />
      {refused.length > 0 && <RefusedLines lines={refused} onMend={mend} />}
      {refused.length > 0 && (
        <Tick
          label={`Leave ${refused.length === 1 ? 'this line' : `these ${refused.length} lines`} out`}
          checked={without}
          onChange={setWithout}
        />
      )}
      {of('known').length > 0 && (
        <Doubles
          lines={of('known')}
          chosen={doubles}
          onToggle={(place) =>
            setDoubles((all) =>
              all.includes(place) ? all.filter((own) => own !== place) : [...all, place],
            )
          }
        />
      )}
      {!told.order_asked && <NewLines lines={of('new')} kind={list.kind} />}
      {check.error && <Notice urgent>{sentence(check.error.message)}</Notice>}
      {store.error && <Notice urgent>{sentence(store.error.detail)}</Notice>}
      <Box>
        <Button
          type="button"
          variant="act"
          disabled={open || taken.length === 0 || store.isPending || check.isFetching}
          onClick={send}
        >
          Store {taken.length.toLocaleString('en')} {wordsOf(list, taken.length)}
        </Button>
        <Text color="soft" mt={2}>
          {why(told, refused.length > 0 && !without, taken.length)}
        </Text>
      </Box>
    </Stack>
  )
}

/** "line 4", and of which sheet where it is one of several. */
function placeOf(list: RecordList, place: number): string {
  const { sheet = '', line = place + 1 } = list.lines[place] ?? {}
  const several = list.lines.some((other) => other.sheet !== sheet)
  return several ? `${sheet}, line ${line}` : `line ${line}`
}

function isOf(own: NameAnswer, other: NameAnswer): boolean {
  return own.name === other.name && own.role === other.role
}

function wordsOf({ kind }: RecordList, count: number): string {
  const many = KINDS.find(([own]) => own === kind)?.[1] ?? ''
  if (count !== 1) return many
  return { clutches: 'clutch', animals: 'animal', weights: 'weight', pairings: 'visit' }[kind]
}

/** Why nothing can be stored yet, or what storing does. */
function why(
  told: { order_asked: boolean; asked: boolean },
  refused: boolean,
  taken: number,
): string {
  if (told.order_asked) return 'First say how the dates are written.'
  if (told.asked) return 'First say who the names above are.'
  if (refused) return 'First mend the lines that cannot be, or leave them out.'
  if (taken === 0) return 'Everything on this list is recorded already.'
  return 'All of it is one act: one undo takes it back.'
}
