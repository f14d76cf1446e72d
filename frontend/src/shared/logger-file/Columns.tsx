import { Box, Flex, NativeSelect, Text } from '@chakra-ui/react'
import type { Schemas } from '../api/client'
import { Button } from '../ui/Button'

type Column = Schemas['ColumnResponse']
export type ColumnUse = Column['used_for']

const USES: [ColumnUse, string][] = [
  ['unused', 'not used'],
  ['time', 'time, or date'],
  ['clock', 'clock beside a date'],
  ['temperature', 'temperature'],
  ['humidity', 'humidity'],
  ['sensor', "sensor's name"],
]

/** Every column with its first cells and what it is used for: always shown, and to be chosen. */
export function Columns({
  columns,
  chosen = [],
  doubt,
  onChoose,
}: {
  columns: Column[]
  /** What was chosen already, of which the answer may be on its way. */
  chosen?: ColumnUse[] | undefined
  /** Why it is asked, where it is. */
  doubt?: string | undefined
  onChoose: (uses: ColumnUse[]) => void
}) {
  const uses = columns.map((column, place) => chosen[place] ?? column.used_for)
  return (
    <Box as="fieldset" my={4} maxWidth="44rem" minWidth={0} border="0" padding={0}>
      <Text as="legend" fontWeight="bold" mb={1}>
        {doubt ?? 'What each column is'}
      </Text>
      {columns.map((column, place) => (
        <Flex
          key={place}
          borderTop="1px solid"
          borderColor="line"
          py={1}
          columnGap={4}
          wrap="wrap"
          align="center"
          color={uses[place] === 'unused' ? 'soft' : undefined}
        >
          <Box flex="1 1 8rem" minWidth={0}>
            <Text fontWeight="semibold" overflowWrap="anywhere">
              {column.heading || `column ${place + 1}`}
            </Text>
            <Text color="soft" fontSize="small" truncate>
              {column.cells.slice(0, 3).join(' · ')}
            </Text>
          </Box>
          <NativeSelect.Root flex="0 0 11.5rem">
            <NativeSelect.Field
              aria-label={`Use of ${column.heading || `column ${place + 1}`}`}
              value={uses[place]}
              onChange={(event) => onChoose(uses.with(place, event.target.value as ColumnUse))}
            >
              {USES.map(([use, words]) => (
                <option key={use} value={use}>
                  {words}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        </Flex>
      ))}
      {doubt && (
        <Box mt={3}>
          <Button type="button" onClick={() => onChoose(uses)}>
            These are right
          </Button>
        </Box>
      )}
    </Box>
  )
}
