import { Checkbox, type CheckboxRootProps, Span } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useController, useFormContext } from 'react-hook-form'
import { COVERING } from './covering'

type Props = {
  label: ReactNode
  checked: boolean
  onChange: (checked: boolean) => void
  note?: ReactNode
} & Pick<CheckboxRootProps, 'my' | 'mb'>

/** Yes or no, as a large target. */
export function Tick({ label, checked, onChange, note, ...room }: Props) {
  return (
    <Checkbox.Root
      checked={checked}
      onCheckedChange={(now) => onChange(now.checked === true)}
      {...room}
    >
      <Checkbox.HiddenInput style={COVERING} />
      <Checkbox.Control />
      <Checkbox.Label>
        {label}
        {note && (
          <Span color="soft" fontSize="small" display="block">
            {note}
          </Span>
        )}
      </Checkbox.Label>
    </Checkbox.Root>
  )
}

/** The same, of the form around it. */
export function TickField({
  name,
  ...tick
}: { name: string } & Omit<Props, 'checked' | 'onChange'>) {
  const { field } = useController({ name, control: useFormContext().control })
  return <Tick checked={field.value === true} onChange={field.onChange} {...tick} />
}
