import { Flex } from '@chakra-ui/react'
import { type ReactNode, useEffect } from 'react'

/** The way on, under the thumb: it stays in sight, and what is told in passing keeps clear of it. */
export function ActBar({ children }: { children: ReactNode }) {
  useEffect(() => {
    const page = document.documentElement.style
    page.setProperty('--act-bar', '80px')
    return () => void page.removeProperty('--act-bar')
  }, [])
  return (
    <Flex
      position="sticky"
      bottom="var(--places-bar)"
      bg="paper"
      gap={3}
      mt={6}
      py={3}
      zIndex={3}
      borderTop="1.5px solid"
      borderColor="line"
    >
      {children}
    </Flex>
  )
}
