import { Grid, RadioCard } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { COVERING } from './covering'

export type Choice<T extends string> = {
  value: T
  label: ReactNode
  /** A drawing above the label. */
  drawing?: ReactNode
  /** Said beside the label, softly. */
  note?: ReactNode
}

type Props<T extends string> = {
  legend: ReactNode
  choices: Choice<T>[]
  value: T | null
  onChoose: (value: T) => void
  columns?: number | { base: number; md: number }
  hideLegend?: boolean
}

/** One of a few, as large targets. */
export function Choices<T extends string>({
  legend,
  choices,
  value,
  onChoose,
  columns,
  hideLegend = false,
}: Props<T>) {
  const template = (n: number) => `repeat(${n}, minmax(0, 1fr))`
  const grid =
    typeof columns === 'object'
      ? { base: template(columns.base), md: template(columns.md) }
      : template(columns ?? choices.length)
  return (
    <RadioCard.Root
      value={value}
      onValueChange={(chosen) => chosen.value !== null && onChoose(chosen.value as T)}
    >
      <RadioCard.Label srOnly={hideLegend}>{legend}</RadioCard.Label>
      <Grid templateColumns={grid} gap={2}>
        {choices.map((choice) => (
          <RadioCard.Item key={choice.value} value={choice.value}>
            <RadioCard.ItemHiddenInput style={COVERING} />
            <RadioCard.ItemControl>
              {choice.drawing}
              <RadioCard.ItemText>{choice.label}</RadioCard.ItemText>
              {choice.note && <RadioCard.ItemDescription>{choice.note}</RadioCard.ItemDescription>}
            </RadioCard.ItemControl>
          </RadioCard.Item>
        ))}
      </Grid>
    </RadioCard.Root>
  )
}
