import { Box, chakra, Span, Stack, Text } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link, useLocation } from 'react-router'
import { placeOf } from '../places'
import { Button } from './Button'

export function Title({ children }: { children: ReactNode }) {
  return (
    <chakra.h1 fontSize="figure" fontWeight="heavy" lineHeight={1.1} letterSpacing="-0.01em">
      {children}
    </chakra.h1>
  )
}

export function Heading({ children, id }: { children: ReactNode; id?: string }) {
  return (
    <chakra.h2 id={id} fontSize="large" fontWeight="bold" lineHeight={1.2} mb={3}>
      {children}
    </chakra.h2>
  )
}

/** A page on its way; or, with a problem, a page that says why there is none and where to go on. */
export function Waiting({ problem }: { problem?: string | undefined }) {
  const place = placeOf(useLocation().pathname)
  if (!problem) return <Fetching />
  return (
    <Stack py={8} gap={4} align="flex-start">
      <Title>There is nothing to show here</Title>
      <p role="alert">{problem.replace(/[^.!?]$/, '$&.')}</p>
      <Button asChild variant="act">
        <Link to={place.to}>To {place.name}</Link>
      </Button>
    </Stack>
  )
}

/** Says that part of a page is being fetched, or why it could not be. */
export function Fetching({ problem }: { problem?: string | undefined }) {
  return (
    <Text
      role={problem ? 'alert' : 'status'}
      py={8}
      color={problem ? 'vessel' : 'soft'}
      fontWeight="semibold"
    >
      {problem ?? 'Reading the house\u2026'}
    </Text>
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
    <Box
      borderStart="6px solid"
      borderColor={urgent ? 'vessel' : 'soft'}
      bg={urgent ? 'vesselSoft' : 'transparent'}
      px={4}
      py={urgent ? 3 : 1}
    >
      {label && (
        // The space is one for the ear too.
        <>
          <Span fontWeight="heavy" color={urgent ? 'vessel' : 'ink'}>
            {label}
          </Span>{' '}
        </>
      )}
      {children}
    </Box>
  )
}
