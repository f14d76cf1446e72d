import { chakra } from '@chakra-ui/react'

/** Things done, each a switch of its own. */
export function Chips<T extends string>({
  legend,
  chips,
  on,
  onToggle,
}: {
  legend: string
  chips: { value: T; label: string }[]
  on: T[]
  onToggle: (value: T) => void
}) {
  return (
    <chakra.fieldset minWidth={0}>
      <chakra.legend fontWeight={650} mb={2}>
        {legend}
      </chakra.legend>
      <chakra.div display="flex" flexWrap="wrap" gap={2}>
        {chips.map(({ value, label }) => {
          const set = on.includes(value)
          return (
            <chakra.button
              key={value}
              type="button"
              aria-pressed={set}
              onClick={() => onToggle(value)}
              minHeight="48px"
              px={4}
              border="2px solid"
              borderColor={set ? 'ink' : 'line'}
              bg={set ? 'sheet' : 'transparent'}
              fontWeight={set ? 750 : 500}
              boxShadow={set ? 'inset 0 -4px 0 0 currentColor' : undefined}
              borderRadius="small"
              cursor="pointer"
              _hover={{ bg: 'faint' }}
            >
              {label}
            </chakra.button>
          )
        })}
      </chakra.div>
    </chakra.fieldset>
  )
}
