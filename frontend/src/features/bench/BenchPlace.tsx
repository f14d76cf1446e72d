import { chakra, Flex, Grid, Span } from '@chakra-ui/react'
import { useToday } from '@/shared/api/queries'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { Mixing } from './Mixing'
import { TopUp } from './TopUp'
import { WhatIf } from './WhatIf'

/** Tools that need no data: what-if, mixing, topping up. Nothing here is recorded. */
export function Component() {
  const today = useToday()
  if (!today.data) return <Waiting problem={today.error?.message} />
  return (
    <>
      <Flex align="baseline" gap={4} wrap="wrap">
        <Title>Bench</Title>
        <Span color="soft">try things out; nothing here is recorded</Span>
      </Flex>
      <chakra.section mt={6} aria-labelledby="what-if">
        <Heading id="what-if">What if</Heading>
        <WhatIf now={today.data.as_of} />
      </chakra.section>
      <Grid mt={12} templateColumns={{ base: '1fr', lg: '1fr 1fr' }} columnGap={12} rowGap={10}>
        <section aria-labelledby="mixing">
          <Heading id="mixing">Mixing medium</Heading>
          <Mixing />
        </section>
        <section aria-labelledby="top-up">
          <Heading id="top-up">Topping up</Heading>
          <TopUp />
        </section>
      </Grid>
    </>
  )
}
