import { chakra } from '@chakra-ui/react'
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
      <chakra.div display="flex" alignItems="baseline" gap={4} flexWrap="wrap">
        <Title>Bench</Title>
        <chakra.span color="soft">try things out; nothing here is recorded</chakra.span>
      </chakra.div>
      <chakra.section mt={6} aria-labelledby="what-if">
        <Heading id="what-if">What if</Heading>
        <WhatIf now={today.data.as_of} />
      </chakra.section>
      <chakra.div
        mt={12}
        display="grid"
        gridTemplateColumns={{ base: '1fr', lg: '1fr 1fr' }}
        columnGap={12}
        rowGap={10}
      >
        <section aria-labelledby="mixing">
          <Heading id="mixing">Mixing medium</Heading>
          <Mixing />
        </section>
        <section aria-labelledby="top-up">
          <Heading id="top-up">Topping up</Heading>
          <TopUp />
        </section>
      </chakra.div>
    </>
  )
}
