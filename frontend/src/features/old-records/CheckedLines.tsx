import { Box, Field as ChakraField, chakra, Flex, Input, Span, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { plainDay } from '@/shared/dates'
import { sentence } from '@/shared/sentence'
import { Tick } from '@/shared/ui/Tick'
import { type TemperatureUnit, temperature, useTemperatureUnit } from '@/shared/units'
import type { Cells, Field, Line, RecordKind } from './queries'
import { CELLS, DAYS, KINDS } from './words'

/** Lines that cannot be as they stand, each with the cells that are wrong, to be mended here. */
export function RefusedLines({
  lines,
  onMend,
}: {
  lines: Line[]
  onMend: (place: number, field: Field, text: string) => void
}) {
  const unit = useTemperatureUnit()
  return (
    <section aria-label="Lines that cannot be">
      <Text fontWeight="bold">
        {lines.length === 1
          ? '1 line cannot be as it stands'
          : `${lines.length} lines cannot be as they stand`}
      </Text>
      <chakra.ul maxHeight="32rem" overflowY="auto" maxWidth="53.75rem">
        {lines.map(({ place, at, cells, checked }) => (
          <chakra.li key={place} borderTop="1px solid" borderColor="line" py={3}>
            <Text>
              <Span color="soft">{at}</Span> {inWords(cells, unit)}
            </Text>
            <Flex gap={4} wrap="wrap" mt={2}>
              {checked.problems.map(({ holds, reason }) => (
                <Mended
                  key={holds}
                  field={cellOf(holds, cells)}
                  text={cells[cellOf(holds, cells)] ?? ''}
                  reason={reason}
                  onMend={(text) => onMend(place, cellOf(holds, cells), text)}
                />
              ))}
            </Flex>
          </chakra.li>
        ))}
      </chakra.ul>
    </section>
  )
}

/** One cell, typed anew; it is looked at again when the field is left. */
function Mended({
  field,
  text,
  reason,
  onMend,
}: {
  field: Field
  text: string
  reason: string
  onMend: (text: string) => void
}) {
  const [typed, setTyped] = useState(text)
  const mend = () => typed !== text && onMend(typed)
  return (
    <ChakraField.Root invalid flex="1 1 14rem" maxWidth="24rem">
      <ChakraField.Label>{CELLS[field]}</ChakraField.Label>
      <Input
        value={typed}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={mend}
        onKeyDown={(event) => event.key === 'Enter' && mend()}
      />
      <ChakraField.ErrorText>{sentence(reason)}</ChakraField.ErrorText>
    </ChakraField.Root>
  )
}

/** Lines that seem to be recorded already: left out, unless the keeper knows better. */
export function Doubles({
  lines,
  chosen,
  onToggle,
}: {
  lines: Line[]
  chosen: number[]
  onToggle: (place: number) => void
}) {
  const unit = useTemperatureUnit()
  return (
    <section aria-label="Recorded already">
      <Text fontWeight="bold">
        {lines.length === 1 ? '1 line is' : `${lines.length} lines are`} recorded already, and left
        out
      </Text>
      <chakra.ul maxHeight="24rem" overflowY="auto" maxWidth="53.75rem">
        {lines.map(({ place, at, checked }) => (
          <chakra.li key={place} borderTop="1px solid" borderColor="line" py={2}>
            <Text>
              <Span color="soft">{at}</Span> {inWords(checked.cells, unit)}
            </Text>
            <Text color="soft">{sentence(checked.words)}</Text>
            <Tick
              label="Record it all the same"
              checked={chosen.includes(place)}
              onChange={() => onToggle(place)}
            />
          </chakra.li>
        ))}
      </chakra.ul>
    </section>
  )
}

/** The lines that will be recorded, as they were understood. */
export function NewLines({ lines, kind }: { lines: Line[]; kind: RecordKind }) {
  const unit = useTemperatureUnit()
  if (lines.length === 0) return null
  const odd = lines.filter(({ checked }) => checked.words)
  const many = KINDS.find(([own]) => own === kind)?.[1]
  return (
    <section aria-label="To be recorded">
      {odd.length > 0 && (
        <Box mb={4}>
          <Text fontWeight="bold">To be looked at once more</Text>
          <ul>
            {odd.map(({ place, at, checked }) => (
              <chakra.li key={place} py={1}>
                <Span color="soft">{at}</Span> {inWords(checked.cells, unit)}:{' '}
                {sentence(checked.words)}
              </chakra.li>
            ))}
          </ul>
        </Box>
      )}
      <chakra.details open={lines.length <= 12}>
        <chakra.summary cursor="pointer" minHeight="2.5rem">
          <strong>
            {lines.length.toLocaleString('en')} {many}
          </strong>{' '}
          <Span color="soft">as they were understood</Span>
        </chakra.summary>
        <chakra.ul maxHeight="24rem" overflowY="auto" maxWidth="53.75rem">
          {lines.map(({ place, checked }) => (
            <chakra.li key={place} borderTop="1px solid" borderColor="line" py={1}>
              {inWords(checked.cells, unit)}
            </chakra.li>
          ))}
        </chakra.ul>
      </chakra.details>
    </section>
  )
}

/** "19-04: Sorrel × Flint, laid 12 Jun 2019, 7-2, 5 hatched" */
function inWords({ code, dam, sire, ...others }: Cells, unit: TemperatureUnit): string {
  const parents = [dam, sire].filter(Boolean).join(' × ')
  const said = Object.entries(others).map(([field, text]) => saidOf(field as Field, text, unit))
  const told = [parents, ...said].filter(Boolean).join(', ')
  return code ? `${code}: ${told}` : told
}

const BEFORE: Partial<Record<Field, string>> = {
  laid: 'laid',
  first_pip: 'first pip',
  kept: 'at',
  start: 'from',
  end: 'until',
  hatch_year: 'hatched in',
  slugs: 'slugs',
}

function saidOf(field: Field, text: string, unit: TemperatureUnit): string {
  if (field === 'hatched') return `${text} hatched`
  const shown = field === 'kept' ? inUnit(text, unit) : DAYS.has(field) ? inFull(text) : text
  return BEFORE[field] ? `${BEFORE[field]} ${shown}` : shown
}

/** A temperature as the house understood it, like "31.5 C"; as it stands in the list otherwise. */
function inUnit(text: string, unit: TemperatureUnit): string {
  const told = /^([\d.]+) C$/.exec(text)
  return told ? temperature(Number(told[1]), unit) : text
}

function inFull(text: string): string {
  return /^\d{4}-\d\d-\d\d$/.test(text) ? plainDay(text) : text
}

/** The cell a sentence is about, of those the list has: eggs may stand for the count. */
function cellOf(holds: string, cells: Cells): Field {
  const field = holds === 'mass_g' ? 'mass' : (holds as Field)
  return field === 'count' && cells.count === undefined && cells.eggs ? 'eggs' : field
}
