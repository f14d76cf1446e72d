import { Checkbox, type CheckboxRootProps, Span } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { COVERING } from './covering'

export type TickProps = {
  label: ReactNode
  checked: boolean
  onChange: (checked: boolean) => void
  note?: ReactNode
} & Pick<CheckboxRootProps, 'my' | 'mb'>

/** Yes or no, as a large target. */
export function Tick({ label, checked, onChange, note, ...room }: TickProps) {
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
