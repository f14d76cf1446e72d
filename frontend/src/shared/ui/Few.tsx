import { type ReactNode, useState } from 'react'
import { Button } from './Button'
import { firstOf } from './firstOf'

/**
 * The first of many, in a list of their own, and a way to all of them.
 *
 * A large house has forty of what a small one has two of: the first screen stays one.
 */
export function Few({
  children,
  most,
  what,
  list,
}: {
  children: ReactNode[]
  most: number
  /** What the others are, like "dams that need somebody". */
  what: string
  /** The list around them. */
  list: (shown: ReactNode[]) => ReactNode
}) {
  const [all, setAll] = useState(false)
  const first = all ? children : firstOf(children, most)
  return (
    <>
      {list(first)}
      {first.length < children.length && (
        <Button variant="plain" size="small" mt={2} mb={3} onClick={() => setAll(true)}>
          Show all {children.length} {what}
        </Button>
      )}
    </>
  )
}
