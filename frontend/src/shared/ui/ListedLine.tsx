import { chakra, Span } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Button } from '@/shared/ui/Button'

/** Something of the house on a line: what it is, and what can be done with it. */
export function ListedLine({
  name,
  more,
  children,
}: {
  name: ReactNode
  more: ReactNode
  children: ReactNode
}) {
  return (
    <chakra.li
      py={2}
      borderTop="1px solid"
      borderColor="line"
      display="flex"
      flexWrap="wrap"
      alignItems="center"
      columnGap={4}
    >
      <Span flex="1 1 16rem">
        {name}
        <Span display="block" color="soft" fontSize="small">
          {more}
        </Span>
      </Span>
      {children}
    </chakra.li>
  )
}

export function LineButton({
  doing,
  onClick,
  children,
}: {
  doing: boolean
  onClick: () => void
  children: ReactNode
}) {
  return (
    <Button type="button" variant="bare" size="small" disabled={doing} onClick={onClick}>
      {children}
    </Button>
  )
}
