import { Box, chakra, Flex, Input, NativeSelect, Span, Stack, Strong } from '@chakra-ui/react'
import { type ReactNode, useEffect, useRef, useState } from 'react'
import { Button } from '@/shared/ui/Button'
import type { Count } from './narrowing'
import type { Narrowing } from './useNarrowing'

/** What a long list holds, counted, each count a way to see only those; a field, and the order. */
export function Narrow<T>({
  narrowing,
  what,
  of,
  children,
}: {
  narrowing: Narrowing<T>
  what: string
  /** All there are, in words, like "100 boxes". */
  of: string
  /** What else is done with the list. */
  children?: ReactNode
}) {
  const { facets, chosen, choose, typed, orders, order } = narrowing
  if (!narrowing.many) return null
  return (
    <Stack gap={2} role="search" aria-label={`Narrow the ${what}`}>
      {facets.map(({ key, legend, counts, alone }) =>
        counts.length > (alone ? 0 : 1) || chosen[key] ? (
          <Counted
            key={key}
            legend={legend}
            counts={counts}
            chosen={chosen[key]}
            onChoose={(value) => choose(key, value)}
          />
        ) : null,
      )}
      <Flex wrap="wrap" columnGap={3} rowGap={2} align="center">
        {typed !== null && <Words what={what} typed={typed} onType={narrowing.type} />}
        {orders.length > 1 && (
          <NativeSelect.Root maxWidth="17rem" width="auto">
            <NativeSelect.Field
              aria-label={`Order of the ${what}`}
              value={order}
              onChange={(event) => narrowing.orderBy(event.target.value)}
            >
              {orders.map(({ value, label }) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </NativeSelect.Field>
            <NativeSelect.Indicator />
          </NativeSelect.Root>
        )}
        {children}
        <LessThanAll narrowing={narrowing} of={of} />
      </Flex>
    </Stack>
  )
}

/** What is typed stands here at once; the address, and with it the list, follow. */
function Words({
  what,
  typed,
  onType,
}: {
  what: string
  typed: string
  onType: (words: string) => void
}) {
  const [words, setWords] = useState(typed)
  /** What was typed here and has not come back yet; of several in a hurry the last alone does. */
  const told = useRef<string[]>([])
  useEffect(() => {
    const back = told.current.lastIndexOf(typed)
    told.current = told.current.slice(back + 1)
    // Said elsewhere: "Show all", or a way back.
    if (back < 0) setWords(typed)
  }, [typed])
  return (
    <Input
      type="search"
      aria-label={`Only ${what} with these words`}
      placeholder="Only with these words"
      value={words}
      width={{ base: '100%', sm: '16rem' }}
      onChange={(event) => {
        told.current.push(event.target.value)
        setWords(event.target.value)
        onType(event.target.value)
      }}
    />
  )
}

function Counted({
  legend,
  counts,
  chosen,
  onChoose,
}: {
  legend: string
  counts: Count[]
  chosen: string | undefined
  onChoose: (value: string | undefined) => void
}) {
  return (
    <Flex role="group" aria-label={legend} wrap="wrap" columnGap={2} rowGap={1} align="center">
      <Span color="soft" fontSize="small" minWidth={{ md: '5.5rem' }} hideBelow="sm">
        {legend}
      </Span>
      {counts.map(({ value, label, count }) => (
        <Chip
          key={value}
          on={chosen === value}
          none={count === 0}
          onClick={() => onChoose(chosen === value ? undefined : value)}
        >
          {label} <Strong>{count}</Strong>
        </Chip>
      ))}
    </Flex>
  )
}

function Chip({
  on,
  none,
  onClick,
  children,
}: {
  on: boolean
  none: boolean
  onClick: () => void
  children: ReactNode
}) {
  return (
    <chakra.button
      type="button"
      aria-pressed={on}
      onClick={onClick}
      minHeight="2.5rem"
      px={3}
      borderRadius="small"
      border="1.5px solid"
      borderColor={on ? 'ink' : 'line'}
      bg={on ? 'ink' : 'sheet'}
      color={on ? 'paper' : none ? 'soft' : 'ink'}
      fontSize="small"
      cursor="pointer"
      _hover={{ borderColor: 'ink' }}
    >
      {children}
    </chakra.button>
  )
}

/** Says that a list holds less than there is, and shows all of it again. */
function LessThanAll<T>({
  narrowing: { items, narrow, clear },
  of,
}: {
  narrowing: Narrowing<T>
  of: string
}) {
  if (!narrow) return null
  return (
    <Box role="status" color="soft">
      {items.length === 0 ? 'None of' : `${items.length} of`} {of} shown.{' '}
      <Button variant="bare" size="small" onClick={clear}>
        Show all
      </Button>
    </Box>
  )
}
