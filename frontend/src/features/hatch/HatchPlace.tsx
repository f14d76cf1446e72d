import { chakra } from '@chakra-ui/react'
import { Link } from 'react-router'
import { Button } from '@/shared/ui/Button'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { useHeldOrder } from '@/shared/ui/useHeldOrder'
import { developed } from '@/shared/units'
import { HatchClutch } from './HatchClutch'
import { type HatchingClutch, useHatchWatch } from './queries'
import { standingWords } from './words'

const codeOf = (clutch: HatchingClutch) => clutch.code

/** Every clutch at hatch: who is still closed and since when, and what to do. */
export function Component() {
  const query = useHatchWatch()
  const watch = query.data
  const clutches = useHeldOrder(watch?.clutches ?? [], codeOf)
  if (!watch) return <Waiting problem={query.error?.message} />
  return (
    <chakra.div display="flex" flexDirection="column" gap={10}>
      <div>
        <Title>Hatch watch</Title>
        {clutches.length === 0 && (
          <chakra.p mt={4} maxWidth="34em">
            No clutch is in its last week. A clutch comes here a week before its first likely pip
            and stays until its hatchlings have taken several meals.
          </chakra.p>
        )}
      </div>
      {clutches.map((clutch) => (
        <section key={clutch.code} aria-labelledby={`hatch-${clutch.code}`}>
          <chakra.div display="flex" alignItems="flex-end" gap={4} flexWrap="wrap" mb={3}>
            <div>
              <Heading id={`hatch-${clutch.code}`}>
                <Link to={`/hatch/${clutch.code}`}>
                  <chakra.span textDecoration="underline" textUnderlineOffset="3px">
                    {clutch.code}
                  </chakra.span>
                </Link>{' '}
                of {clutch.dam}
              </Heading>
              <chakra.p fontSize="1.08em" mt="-6px">
                {standingWords(clutch, watch.as_of)}
              </chakra.p>
              <chakra.p color="soft">
                {clutch.cabinet}, {clutch.shelf}; day {clutch.day}, {developed(clutch.fraction)} by
                heat. Cutting: {clutch.school}.
              </chakra.p>
            </div>
            <Button asChild marginStart={{ md: 'auto' }}>
              <Link to={`/hatch/${clutch.code}`}>Hatchlings and fates</Link>
            </Button>
          </chakra.div>
          {!clutch.maternal && !clutch.finished_at && (
            <HatchClutch clutch={clutch} asOf={watch.as_of} />
          )}
        </section>
      ))}
    </chakra.div>
  )
}
