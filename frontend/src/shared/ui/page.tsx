import { chakra } from '@chakra-ui/react'
import type { ReactNode } from 'react'

export function Title({ children }: { children: ReactNode }) {
  return (
    <chakra.h1
      fontSize={{ base: '1.7em', md: '2.1em' }}
      fontWeight={800}
      lineHeight={1.1}
      letterSpacing="-0.01em"
    >
      {children}
    </chakra.h1>
  )
}

export function Heading({ children, id }: { children: ReactNode; id?: string }) {
  return (
    <chakra.h2 id={id} fontSize="1.25em" fontWeight={750} lineHeight={1.2} mb={3}>
      {children}
    </chakra.h2>
  )
}

/** Says that something is being fetched, or why it could not be. */
export function Waiting({ problem }: { problem?: string | undefined }) {
  return (
    <chakra.p
      role={problem ? 'alert' : 'status'}
      py={8}
      color={problem ? 'vessel' : 'soft'}
      fontWeight={600}
    >
      {problem ?? 'Reading the house\u2026'}
    </chakra.p>
  )
}

/** A sentence to act on, marked by a bar: red in trouble, ink otherwise. Never colour alone. */
export function Notice({
  urgent = false,
  label,
  children,
}: {
  urgent?: boolean
  label?: string | undefined
  children: ReactNode
}) {
  return (
    <chakra.div
      borderStart="6px solid"
      borderColor={urgent ? 'vessel' : 'soft'}
      bg={urgent ? 'vesselSoft' : 'transparent'}
      px={4}
      py={urgent ? 3 : 1}
    >
      {label && (
        <chakra.span fontWeight={800} color={urgent ? 'vessel' : 'ink'} me={2}>
          {label}
        </chakra.span>
      )}
      {children}
    </chakra.div>
  )
}
