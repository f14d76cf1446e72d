import { Flex, Span, Stack, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { Narrow } from '@/shared/many/Narrow'
import { useNarrowing } from '@/shared/many/useNarrowing'
import { Button } from '@/shared/ui/Button'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { useHeldOrder } from '@/shared/ui/useHeldOrder'
import { developed } from '@/shared/units'
import { HatchClutch } from './HatchClutch'
import { NARROWING, onlyWaits } from './narrowing'
import { type HatchingClutch, useHatchWatch } from './queries'
import { standingWords } from './words'

/** Where its boxes stand, with their names where there are several. */
const placesOf = ({ boxes }: HatchingClutch) =>
  boxes
    .map(({ name, cabinet, shelf }) =>
      boxes.length > 1 ? `${name}: ${cabinet}, ${shelf}` : `${cabinet}, ${shelf}`,
    )
    .join('; ')

/** Whether it has eggs that are watched here. */
const hasEggs = ({ maternal, finished_at }: HatchingClutch) => !maternal && !finished_at

const codeOf = (clutch: HatchingClutch) => clutch.code

/** Every clutch at hatch: who is still closed and since when, and what to do. */
export function Component() {
  const query = useHatchWatch()
  const watch = query.data
  const clutches = useHeldOrder(watch?.clutches ?? [], codeOf)
  const narrowing = useNarrowing(clutches, NARROWING)
  if (!watch) return <Waiting problem={query.error?.message} />
  return (
    <Stack gap={narrowing.many ? 8 : 10}>
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
      <Narrow narrowing={narrowing} what="clutches" of={`${clutches.length} clutches`} />
      {narrowing.items.map((clutch) => (
        <AtHatch
          key={clutch.code}
          clutch={clutch}
          asOf={watch.as_of}
          folded={narrowing.many && onlyWaits(clutch)}
        />
      ))}
    </Stack>
  )
}

/** A clutch at hatch; `folded` it shows its eggs when it is asked to. */
function AtHatch({
  clutch,
  asOf,
  folded,
}: {
  clutch: HatchingClutch
  asOf: string
  folded: boolean
}) {
  const [open, setOpen] = useState(false)
  return (
    <section aria-labelledby={`hatch-${clutch.code}`}>
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
            {standingWords(clutch, asOf)}
          </Text>
          <Text color="soft">
            {placesOf(clutch)}; day {clutch.day}, {developed(clutch.fraction)} by heat. Cutting:{' '}
            {clutch.school}.
          </Text>
        </div>
        <Flex gap={3} marginStart={{ md: 'auto' }} wrap="wrap">
          {folded && (
            <Button aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? 'Fold' : 'Its eggs'}
            </Button>
          )}
          <Button asChild>
            <Link to={`/hatch/${clutch.code}`}>Hatchlings and fates</Link>
          </Button>
        </Flex>
      </Flex>
      {hasEggs(clutch) && (open || !folded) && <HatchClutch clutch={clutch} asOf={asOf} />}
    </section>
  )
}
