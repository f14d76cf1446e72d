import { Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Button } from './Button'

/** How a form that was opened on a page ends: recorded, or left without anything. */
export function FormEnd({
  label,
  disabled,
  onLeave,
  children,
}: {
  label: ReactNode
  disabled: boolean
  onLeave: () => void
  /** Another way to end it. */
  children?: ReactNode
}) {
  return (
    <Flex gap={3} wrap="wrap">
      <Button type="submit" variant="act" disabled={disabled}>
        {label}
      </Button>
      {children}
      <Button type="button" onClick={onLeave}>
        Leave it
      </Button>
    </Flex>
  )
}
