import { Box, Flex, NativeSelect, Stack, Text } from '@chakra-ui/react'
import { zone } from '../dates'

export type FileChoices = {
  zone?: string
  order?: 'dmy' | 'mdy'
  unit?: 'c' | 'f'
  time_column?: number
  temperature_column?: number
  humidity_column?: number
}

type Question = { about: 'zone' | 'order' | 'unit' | 'columns'; text: string }

/** What a file leaves open, asked one under the other; nothing is guessed. */
export function Questions({
  questions,
  heading,
  choices,
  onChoose,
}: {
  questions: Question[]
  heading: string[]
  choices: FileChoices
  onChoose: (choices: FileChoices) => void
}) {
  if (questions.length === 0) return null
  return (
    <Stack gap={4} my={4}>
      {questions.map(({ about, text }) => (
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
              ]}
              onChoose={(value) => onChoose({ ...choices, unit: value as 'c' | 'f' })}
            />
          )}
          {about === 'zone' && (
            <Choice
              label={text}
              options={zones()}
              onChoose={(zone) => onChoose({ ...choices, zone })}
            />
          )}
          {about === 'columns' && (
            <Columns heading={heading} choices={choices} onChoose={onChoose} />
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

function Columns({
  heading,
  choices,
  onChoose,
}: {
  heading: string[]
  choices: FileChoices
  onChoose: (choices: FileChoices) => void
}) {
  const options = heading.map((name, i): [string, string] => [
    String(i),
    `column ${i + 1}: ${name || 'no name'}`,
  ])
  return (
    <Flex gap={4} wrap="wrap">
      {(['time_column', 'temperature_column', 'humidity_column'] as const).map((key) => (
        <Box key={key} flex="1" minWidth="min(12rem, 100%)">
          <span>{key.replace('_column', '')}</span>
          <Choice
            label={key.replace('_', ' ')}
            options={options}
            onChoose={(value) => onChoose({ ...choices, [key]: Number(value) })}
          />
        </Box>
      ))}
    </Flex>
  )
}
