import { chakra } from '@chakra-ui/react'
import { chosenLook } from './Choices'

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
        {chips.map(({ value, label }) => (
          <chakra.button
            key={value}
            type="button"
            aria-pressed={on.includes(value)}
            onClick={() => onToggle(value)}
            minHeight="48px"
            px={4}
            {...chosenLook(on.includes(value))}
            _hover={{ bg: 'faint' }}
          >
            {label}
          </chakra.button>
        ))}
      </chakra.div>
    </chakra.fieldset>
  )
}
