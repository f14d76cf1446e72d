import { chakra } from '@chakra-ui/react'
import type { ReactNode } from 'react'

/** A tool's answer, or why there is none. */
export function Result({
  problem,
  children,
}: {
  problem?: string | undefined
  children: ReactNode
}) {
  if (problem) {
    return (
      <chakra.p role="alert" color="vessel" fontWeight={650}>
        {problem.charAt(0).toUpperCase() + problem.slice(1)}.
      </chakra.p>
    )
  }
  return (
    <chakra.p role="status" fontSize="1.1em">
      {children}
    </chakra.p>
  )
}
