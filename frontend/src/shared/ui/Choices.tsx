import { chakra } from '@chakra-ui/react'
import { type ReactNode, useId } from 'react'

export type Choice<T extends string> = {
  value: T
  label: ReactNode
  /** A drawing above the label. */
  drawing?: ReactNode
  /** Said beside the label, softly. */
  note?: ReactNode
}

/** How something chosen looks beside what is not: by its line and weight, not by colour alone. */
export function chosenLook(chosen: boolean) {
  return {
    border: '2px solid',
    borderColor: chosen ? 'ink' : 'line',
    bg: chosen ? 'sheet' : 'transparent',
    fontWeight: chosen ? 750 : 500,
    boxShadow: chosen ? 'inset 0 -4px 0 0 currentColor' : undefined,
    borderRadius: 'small',
    cursor: 'pointer',
  } as const
}

/** One of a few, as large targets: radio buttons underneath, so arrow keys and Tab work. */
export function Choices<T extends string>({
  legend,
  choices,
  value,
  onChoose,
  columns,
  hideLegend = false,
}: {
  legend: ReactNode
  choices: Choice<T>[]
  value: T | null
  onChoose: (value: T) => void
  columns?: number | { base: number; md: number }
  hideLegend?: boolean
}) {
  const name = useId()
  const template = (n: number) => `repeat(${n}, minmax(0, 1fr))`
  const grid =
    typeof columns === 'object'
      ? { base: template(columns.base), md: template(columns.md) }
      : template(columns ?? choices.length)
  return (
    <chakra.fieldset minWidth={0}>
      <chakra.legend fontWeight={650} mb={2} srOnly={hideLegend}>
        {legend}
      </chakra.legend>
      <chakra.div display="grid" gridTemplateColumns={grid} gap={2}>
        {choices.map((choice) => {
          const chosen = choice.value === value
          return (
            <chakra.label
              key={choice.value}
              display="flex"
              flexDirection="column"
              alignItems="center"
              justifyContent="center"
              textAlign="center"
              gap={1}
              minHeight="56px"
              px={2}
              py={2}
              {...chosenLook(chosen)}
              lineHeight={1.2}
              position="relative"
              _hover={{ bg: 'faint' }}
              _focusWithin={{ outline: '3px solid', outlineColor: 'focus', outlineOffset: '2px' }}
            >
              <chakra.input
                type="radio"
                name={name}
                value={choice.value}
                checked={chosen}
                onChange={() => onChoose(choice.value)}
                position="absolute"
                opacity={0}
                inset={0}
                cursor="pointer"
                _focusVisible={{ outline: 'none' }}
              />
              {choice.drawing}
              <span>{choice.label}</span>
              {choice.note && (
                <chakra.span color="soft" fontSize="0.86em" fontWeight={500}>
                  {choice.note}
                </chakra.span>
              )}
            </chakra.label>
          )
        })}
      </chakra.div>
    </chakra.fieldset>
  )
}

/** Yes or no, as a large target. */
export function Tick({
  label,
  checked,
  onChange,
  note,
}: {
  label: ReactNode
  checked: boolean
  onChange: (checked: boolean) => void
  note?: ReactNode
}) {
  return (
    <chakra.label display="flex" alignItems="center" gap={3} minHeight="48px" cursor="pointer">
      <chakra.input
        type="checkbox"
        checked={checked}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>
        {label}
        {note && (
          <chakra.span color="soft" fontSize="0.9em" display="block">
            {note}
          </chakra.span>
        )}
      </span>
    </chakra.label>
  )
}
