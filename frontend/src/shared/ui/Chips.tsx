import { chakra, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { ChoiceCard } from './ChoiceCard'

export type Chip<T extends string> = {
  value: T
  label: string
  /** A drawing above the label. */
  drawing?: ReactNode
}

type Props<T extends string> = {
  legend: ReactNode
  chips: readonly Chip<T>[]
  on: readonly T[]
  onToggle: (value: T) => void
  /** Each has a drawing: they are all as wide. */
  drawn?: boolean
}

/** Things that are so or are done, each a switch of its own. */
export function Chips<T extends string>({ legend, chips, on, onToggle, drawn }: Props<T>) {
  return (
    <chakra.fieldset minWidth={0}>
      <chakra.legend fontWeight="semibold" mb={2}>
        {legend}
      </chakra.legend>
      <Flex wrap="wrap" gap={2}>
        {chips.map((chip) => (
          <ChoiceCard
            key={chip.value}
            {...chip}
            type="checkbox"
            drawn={drawn}
            checked={on.includes(chip.value)}
            onPick={onToggle}
          />
        ))}
      </Flex>
    </chakra.fieldset>
  )
}
