import { Box, chakra } from '@chakra-ui/react'
import type { ReactNode } from 'react'

/** A token or link in the clear: the house keeps only its hash and cannot show it again. */
export function ShownOnce({
  words,
  secret,
  children,
}: {
  words: ReactNode
  secret: string
  children?: ReactNode
}) {
  return (
    <Box border="2px solid" borderColor="yolkInk" borderRadius="small" p={4} mb={4} role="status">
      <p>{words}</p>
      <chakra.code display="block" fontSize="lead" fontWeight="bold" my={2} overflowWrap="anywhere">
        {secret}
      </chakra.code>
      {children}
    </Box>
  )
}
