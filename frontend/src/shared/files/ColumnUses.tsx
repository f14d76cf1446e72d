import { Box, Flex, NativeSelect, Text } from '@chakra-ui/react'
import { Button } from '../ui/Button'

/** Every column of a file with its first cells and what it is used for: always shown, and to be
    chosen. */
export function ColumnUses<Use extends string>({
  columns,
  uses,
  words,
  unused,
  doubt,
  onChoose,
}: {
  columns: { heading: string; cells: string[] }[]
  uses: Use[]
  words: [Use, string][]
  unused: Use
  /** Why it is asked, where it is. */
  doubt?: string | undefined
  onChoose: (uses: Use[]) => void
}) {
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
          color={uses[place] === unused ? 'soft' : undefined}
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
              onChange={(event) => onChoose(uses.with(place, event.target.value as Use))}
            >
              {words.map(([use, said]) => (
                <option key={use} value={use}>
                  {said}
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
