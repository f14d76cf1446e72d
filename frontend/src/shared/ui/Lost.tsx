import { Box, chakra, Span, Text } from '@chakra-ui/react'
import { Link } from 'react-router'

/** A page that is not there, or that failed to open. */
export function Lost() {
  return (
    <Box py={12}>
      <chakra.h1 fontSize="figure" fontWeight="heavy" mb={2}>
        There is nothing here
      </chakra.h1>
      <Text mb={4}>The address may be of a clutch that was undone, or mistyped.</Text>
      <Link to="/">
        <Span textDecoration="underline" color="yolkInk" fontWeight="semibold">
          To Today
        </Span>
      </Link>
    </Box>
  )
}
