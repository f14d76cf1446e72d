import { Text } from '@chakra-ui/react'
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
      <Text role="alert" color="vessel" fontWeight="semibold">
        {problem.charAt(0).toUpperCase() + problem.slice(1)}.
      </Text>
    )
  }
  return (
    <Text role="status" fontSize="lead">
      {children}
    </Text>
  )
}
