import { Box, chakra, HStack, Span, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { DueLines } from '@/shared/rounds/DueLines'
import { isPressing } from '@/shared/rounds/urgency'
import { Button } from '@/shared/ui/Button'
import { firstOf } from '@/shared/ui/firstOf'
import { Heading } from '@/shared/ui/page'
import { codeOf } from './BoxLine'

type TodayBox = Schemas['TodayBoxResponse']

/** Boxes shown here; more are in the round. */
const SHOWN = 12

/** The boxes to open today, by cabinet and shelf so that doors stay shut, each with its why. */
export function OpenToday({ boxes }: { boxes: TodayBox[] }) {
  const due = boxes.filter((box) => box.due.length > 0)
  const put = boxes.filter((box) => box.due.length === 0 && box.postponed.length > 0)
  const listed = [...due, ...put]
  // Of more than are shown at once those that cannot wait are never among the others.
  if (listed.length > SHOWN) listed.sort((a, b) => Number(pressing(b)) - Number(pressing(a)))
  const shown = firstOf(listed, SHOWN)
  const first = due[0]
  if (due.length + put.length === 0) return null
  return (
    <section aria-labelledby="open-today">
      <HStack gap={4} wrap="wrap" mb={2}>
        <Heading id="open-today">
          {due.length === 0
            ? 'No box to open today'
            : due.length === 1
              ? 'One box to open'
              : `${due.length} boxes to open`}
        </Heading>
        {first && (
          <Button asChild variant="act">
            <Link to={`/round/${encodeURIComponent(first.name)}`}>Start the round</Link>
          </Button>
        )}
      </HStack>
      <ol>
        {shown.map((box) => (
          <chakra.li
            key={box.name}
            display="grid"
            gridTemplateColumns={{ base: '1fr', md: '14.375rem 1fr' }}
            columnGap={6}
            borderTop="1px solid"
            borderColor="line"
            borderStart="6px solid"
            borderStartColor={pressing(box) ? 'vessel' : 'line'}
            bg={pressing(box) ? 'vesselSoft' : 'transparent'}
            px={4}
            py={1}
          >
            <Box pt={{ md: '9px' }}>
              <Link to={`/round/${encodeURIComponent(box.name)}`}>
                <Strong textDecoration="underline" textUnderlineOffset="4px">
                  {box.name}
                </Strong>
              </Link>
              <Span color={pressing(box) ? 'ink' : 'soft'}>
                {' '}
                {box.cabinet}, {box.shelf}
              </Span>
            </Box>
            <DueLines box={box.name} code={codeOf(box)} due={box.due} postponed={box.postponed} />
          </chakra.li>
        ))}
      </ol>
      {shown.length < listed.length && (
        <Button asChild size="small" mt={3}>
          <Link to="/round">All {listed.length} boxes, by what they need</Link>
        </Button>
      )}
    </section>
  )
}

function pressing(box: TodayBox): boolean {
  return box.due.some((reason) => isPressing(reason.urgency))
}
