import { chakra, Grid } from '@chakra-ui/react'
import { type ReactNode, useId } from 'react'
import { ChoiceCard } from './ChoiceCard'

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
  choices: readonly Choice<T>[]
  value: T | null
  onChoose: (value: T) => void
  columns?: number | { base: number; md: number }
  hideLegend?: boolean
}

const template = (n: number) => `repeat(${n}, minmax(0, 1fr))`

/** One of a few, as large targets. */
export function Choices<T extends string>({
  legend,
  choices,
  value,
  onChoose,
  columns,
  hideLegend = false,
}: Props<T>) {
  const id = useId()
  const grid =
    typeof columns === 'object'
      ? { base: template(columns.base), md: template(columns.md) }
      : template(columns ?? choices.length)
  return (
    <chakra.div role="radiogroup" aria-labelledby={id} minWidth={0}>
      <chakra.span id={id} display="block" fontWeight="semibold" mb={2} srOnly={hideLegend}>
        {legend}
      </chakra.span>
      <Grid templateColumns={grid} gap={2}>
        {choices.map((choice) => (
          <ChoiceCard
            key={choice.value}
            {...choice}
            type="radio"
            group={id}
            checked={choice.value === value}
            onPick={onChoose}
          />
        ))}
      </Grid>
    </chakra.div>
  )
}
