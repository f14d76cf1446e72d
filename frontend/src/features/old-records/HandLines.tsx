import { Box, chakra, Field, Flex, Input, Stack, Text } from '@chakra-ui/react'
import { useState } from 'react'
import type { Schemas } from '@/shared/api/client'
import { EntryRow } from './EntryRow'
import { HandLine } from './HandLine'
import { writesMonthFirst } from './keystrokes'
import { NOTHING, type Texts } from './lines'
import { Options } from './Options'
import type { Cells, PastClutch } from './queries'
import { useHandLines } from './useHandLines'

type Props = { animals: Schemas['AnimalResponse'][]; past: PastClutch[]; mostEggs: number }

/** Cards typed in one under the other by keys alone; each is stored as soon as it is finished. */
export function HandLines({ animals, past, mostEggs }: Props) {
  const hand = useHandLines()
  const [year, setYear] = useState(String(new Date().getFullYear() - 1))
  const [monthFirst, setMonthFirst] = useState(() => writesMonthFirst(navigator.language))
  const [texts, setTexts] = useState<Texts>(NOTHING)
  // What was half typed when a line came back to be mended: it goes on after that.
  const [aside, setAside] = useState<Texts>(NOTHING)
  const written = hand.lines.map(({ cells }) => cells)
  const named = (role: 'dam' | 'sire') => [
    ...new Set([
      ...animals.filter((animal) => animal.role === role).map(({ name }) => name),
      ...written.flatMap((cells) => cells[role] ?? []),
    ]),
  ]
  const finish = (cells: Cells) => {
    hand.add(cells)
    setTexts(aside)
    setAside(NOTHING)
  }
  return (
    <Stack gap={4}>
      <Flex gap={5} align="end" wrap="wrap">
        <Field.Root width="7rem">
          <Field.Label>Season</Field.Label>
          <Input
            value={year}
            inputMode="numeric"
            maxLength={4}
            autoComplete="off"
            onChange={(event) => setYear(event.target.value)}
          />
        </Field.Root>
        <Options
          label="Days are typed"
          options={[
            ['day', 'day first'],
            ['month', 'month first'],
          ]}
          value={monthFirst ? 'month' : 'day'}
          onChoose={(first) => setMonthFirst(first === 'month')}
        />
      </Flex>
      <EntryRow
        texts={texts}
        writing={{
          year: Number(year) || new Date().getFullYear(),
          monthFirst,
          mostEggs,
        }}
        names={{ dam: named('dam'), sire: named('sire') }}
        written={written}
        past={past}
        onTexts={setTexts}
        onFinish={finish}
      />
      <Text color="soft" fontSize="small" maxWidth="44rem">
        Digits go on by themselves: {monthFirst ? 612 : 126} is 12 June, 72 is seven eggs of which
        two slugs. The first pip is days after laying, or the day of the month. Tab leaves a field
        empty, Enter ends the line.
      </Text>
      <Box aria-live="polite">
        <chakra.ul>
          {hand.lines.map((line) => (
            <HandLine
              key={line.key}
              line={line}
              onAgain={(answers) => hand.again(line, answers)}
              onMend={() => {
                hand.take(line)
                setAside(texts)
                setTexts(textsOf(line.cells))
              }}
            />
          ))}
        </chakra.ul>
      </Box>
    </Stack>
  )
}

/** A line put back where it is typed: with days as they were understood. */
function textsOf(cells: Cells): Texts {
  return {
    dam: cells.dam ?? '',
    sire: cells.sire ?? '',
    laid: cells.laid ?? '',
    count: cells.count ?? '',
    hatched: cells.hatched ?? '',
    first_pip: cells.first_pip ?? '',
  }
}
