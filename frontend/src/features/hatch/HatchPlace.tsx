import { Flex, Span, Stack, Text } from '@chakra-ui/react'
import { Link } from 'react-router'
import { Button } from '@/shared/ui/Button'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { useHeldOrder } from '@/shared/ui/useHeldOrder'
import { developed } from '@/shared/units'
import { HatchClutch } from './HatchClutch'
import { type HatchingClutch, useHatchWatch } from './queries'
import { standingWords } from './words'

/** Where its boxes stand, with their names where there are several. */
const placesOf = ({ boxes }: HatchingClutch) =>
  boxes
    .map(({ name, cabinet, shelf }) =>
      boxes.length > 1 ? `${name}: ${cabinet}, ${shelf}` : `${cabinet}, ${shelf}`,
    )
    .join('; ')

const codeOf = (clutch: HatchingClutch) => clutch.code

/** Every clutch at hatch: who is still closed and since when, and what to do. */
export function Component() {
  const query = useHatchWatch()
  const watch = query.data
  const clutches = useHeldOrder(watch?.clutches ?? [], codeOf)
  if (!watch) return <Waiting problem={query.error?.message} />
  return (
    <Stack gap={10}>
      <div>
        <Flex align="center" gap={4} wrap="wrap">
          <Title>Hatch watch</Title>
          <Button asChild marginStart="auto">
            <Link to="/hatchlings">Hatchlings</Link>
          </Button>
        </Flex>
        {clutches.length === 0 && (
          <Text mt={4} maxWidth="34em">
            No clutch is in its last week. A clutch comes here a week before its first likely pip
            and stays until its hatchlings have taken several meals.
          </Text>
        )}
      </div>
      {clutches.map((clutch) => (
        <section key={clutch.code} aria-labelledby={`hatch-${clutch.code}`}>
          <Flex align="flex-end" gap={4} wrap="wrap" mb={3}>
            <div>
              <Heading id={`hatch-${clutch.code}`}>
                <Link to={`/hatch/${clutch.code}`}>
                  <Span textDecoration="underline" textUnderlineOffset="3px">
                    {clutch.code}
                  </Span>
                </Link>{' '}
                of {clutch.dam}
              </Heading>
              <Text fontSize="lead" mt="-6px">
                {standingWords(clutch, watch.as_of)}
              </Text>
              <Text color="soft">
                {placesOf(clutch)}; day {clutch.day}, {developed(clutch.fraction)} by heat. Cutting:{' '}
                {clutch.school}.
              </Text>
            </div>
            <Button asChild marginStart={{ md: 'auto' }}>
              <Link to={`/hatch/${clutch.code}`}>Hatchlings and fates</Link>
            </Button>
          </Flex>
          {!clutch.maternal && !clutch.finished_at && (
            <HatchClutch clutch={clutch} asOf={watch.as_of} />
          )}
        </section>
      ))}
    </Stack>
  )
}
