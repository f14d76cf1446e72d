import { chakra, Span } from '@chakra-ui/react'
import type { ReactNode } from 'react'

/** A line of a list that is told by its day. */
export function DatedLine({ at, children }: { at: string; children: ReactNode }) {
  return (
    <chakra.li
      display="flex"
      gap={4}
      minHeight="2.5rem"
      alignItems="center"
      borderTop="1px solid"
      borderColor="line"
    >
      <Span color="soft" width="7.5em" flexShrink={0}>
        {at}
      </Span>
      <div>{children}</div>
    </chakra.li>
  )
}
