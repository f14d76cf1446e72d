import { Box, chakra } from '@chakra-ui/react'

/** Names and what they are, beside each other, a line each. */
export function Facts({ facts }: { facts: (string | null)[][] }) {
  return (
    <chakra.dl display="grid" gridTemplateColumns="auto 1fr" columnGap={4} rowGap={1}>
      {facts.map(([name, value]) => (
        <Box key={name} display="contents">
          <chakra.dt color="soft">{name}</chakra.dt>
          <chakra.dd fontWeight="semibold">{value}</chakra.dd>
        </Box>
      ))}
    </chakra.dl>
  )
}
