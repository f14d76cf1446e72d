import { Box, NativeSelect, Stack, Text } from '@chakra-ui/react'
import type { Schemas } from '../api/client'
import { zone } from '../dates'
import type { ColumnUse } from './Columns'

export type FileChoices = {
  zone?: string
  order?: 'dmy' | 'mdy'
  unit?: 'c' | 'f' | 'k'
  sheet?: string
  column?: ColumnUse[]
}

/** What a file leaves open, asked one under the other; nothing is guessed. Which column is what
    is asked where the columns are shown. */
export function Questions({
  questions,
  sheets = [],
  choices,
  onChoose,
}: {
  questions: Schemas['QuestionResponse'][]
  sheets?: string[]
  choices: FileChoices
  onChoose: (choices: FileChoices) => void
}) {
  const asked = questions.filter(({ about }) => about !== 'columns')
  if (asked.length === 0) return null
  return (
    <Stack gap={4} my={4}>
      {asked.map(({ about, text }) => (
        <Box key={about}>
          <Text fontWeight="bold" mb={1}>
            {text}
          </Text>
          {about === 'order' && (
            <Choice
              label={text}
              options={[
                ['dmy', 'day first: 03/04 is the 3rd of April'],
                ['mdy', 'month first: 03/04 is the 4th of March'],
              ]}
              onChoose={(value) => onChoose({ ...choices, order: value as 'dmy' | 'mdy' })}
            />
          )}
          {about === 'unit' && (
            <Choice
              label={text}
              options={[
                ['c', '°C'],
                ['f', '°F'],
                ['k', 'kelvin'],
              ]}
              onChoose={(value) => onChoose({ ...choices, unit: value as 'c' | 'f' | 'k' })}
            />
          )}
          {about === 'zone' && (
            <Choice
              label={text}
              options={zones()}
              onChoose={(zone) => onChoose({ ...choices, zone })}
            />
          )}
          {about === 'sheet' && (
            <Choice
              label={text}
              options={sheets.map((name): [string, string] => [name, name])}
              // Another sheet has columns of its own.
              onChoose={(sheet) => onChoose({ ...choices, sheet, column: [] })}
            />
          )}
        </Box>
      ))}
    </Stack>
  )
}

/** The zones there are, this device's first. */
export function zones(): [string, string][] {
  const own = zone()
  const all = Intl.supportedValuesOf('timeZone').filter((name) => name !== own && name !== 'UTC')
  const first: [string, string][] = [[own, `this device's: ${own}`]]
  if (own !== 'UTC') first.push(['UTC', 'UTC'])
  return [...first, ...all.map((name): [string, string] => [name, name])]
}

function Choice({
  label,
  options,
  onChoose,
}: {
  label: string
  options: [string, string][]
  onChoose: (value: string) => void
}) {
  return (
    <NativeSelect.Root maxWidth="26rem">
      <NativeSelect.Field
        aria-label={label}
        defaultValue=""
        onChange={(event) => onChoose(event.target.value)}
      >
        <option value="" disabled>
          choose
        </option>
        {options.map(([value, shown]) => (
          <option key={value} value={value}>
            {shown}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  )
}
