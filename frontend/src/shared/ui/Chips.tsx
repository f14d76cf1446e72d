import { CheckboxCard, chakra, Flex, type SystemStyleObject } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { COVERING } from './covering'

export type Chip<T extends string> = {
  value: T
  label: string
  /** A drawing above the label. */
  drawing?: ReactNode
}

type Props<T extends string> = {
  legend: ReactNode
  chips: Chip<T>[]
  on: T[]
  onToggle: (value: T) => void
  css?: SystemStyleObject
}

/** Things that are so or are done, each a switch of its own. */
export function Chips<T extends string>({ legend, chips, on, onToggle, css = {} }: Props<T>) {
  return (
    <chakra.fieldset minWidth={0}>
      <chakra.legend fontWeight="semibold" mb={2}>
        {legend}
      </chakra.legend>
      <Flex wrap="wrap" gap={2}>
        {chips.map(({ value, label, drawing }) => (
          <CheckboxCard.Root
            key={value}
            checked={on.includes(value)}
            onCheckedChange={() => onToggle(value)}
            css={css}
          >
            <CheckboxCard.HiddenInput style={COVERING} />
            <CheckboxCard.Control>
              {drawing}
              <CheckboxCard.Label>{label}</CheckboxCard.Label>
            </CheckboxCard.Control>
          </CheckboxCard.Root>
        ))}
      </Flex>
    </chakra.fieldset>
  )
}
