import { Box, chakra, HStack, Span, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { DueLines } from '@/shared/rounds/DueLines'
import { urgencyRank } from '@/shared/rounds/urgency'
import { Button } from '@/shared/ui/Button'
import { Heading } from '@/shared/ui/page'

type Clutch = Schemas['TodayClutchResponse']

/** The boxes to open today, by cabinet and shelf so that doors stay shut, each with its why. */
export function OpenToday({ clutches }: { clutches: Clutch[] }) {
  const due = clutches.filter((clutch) => clutch.due.length > 0)
  const put = clutches.filter((clutch) => clutch.due.length === 0 && clutch.postponed.length > 0)
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
            <Link to={`/round/${first.code}`}>Start the round</Link>
          </Button>
        )}
      </HStack>
      <ol>
        {[...due, ...put].map((clutch) => (
          <chakra.li
            key={clutch.code}
            display="grid"
            gridTemplateColumns={{ base: '1fr', md: '14.375rem 1fr' }}
            columnGap={6}
            borderTop="1px solid"
            borderColor="line"
            borderStart="6px solid"
            borderStartColor={pressing(clutch) ? 'vessel' : 'line'}
            bg={pressing(clutch) ? 'vesselSoft' : 'transparent'}
            px={4}
            py={1}
          >
            <Box pt={{ md: '9px' }}>
              <Link to={`/round/${clutch.code}`}>
                <Strong textDecoration="underline" textUnderlineOffset="4px">
                  {clutch.code}
                </Strong>
              </Link>
              <Span color={pressing(clutch) ? 'ink' : 'soft'}>
                {' '}
                {clutch.cabinet}, {clutch.shelf}
              </Span>
            </Box>
            <DueLines code={clutch.code} due={clutch.due} postponed={clutch.postponed} />
          </chakra.li>
        ))}
      </ol>
    </section>
  )
}

function pressing(clutch: Clutch): boolean {
  return clutch.due.some((reason) => urgencyRank(reason.urgency) >= 2)
}
