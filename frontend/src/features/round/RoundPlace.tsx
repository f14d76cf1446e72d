import { Box, chakra, Flex, Span, Stack, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import { BoxDrawing } from '@/eggs/BoxDrawing'
import { asLook } from '@/shared/api/eggLook'
import { counted } from '@/shared/counted'
import { day } from '@/shared/dates'
import { useMoment } from '@/shared/moment/moment'
import { When } from '@/shared/moment/When'
import { useWaiting } from '@/shared/offline/useDelivery'
import { DueLines } from '@/shared/rounds/DueLines'
import { ONE_COLUMN } from '@/shared/theme/tight'
import { Button } from '@/shared/ui/Button'
import { Heading, Title } from '@/shared/ui/page'
import { Deliveries } from './Deliveries'
import { NoRound } from './NoRound'
import { boxesDue, type RoundBox, stagesOf, useOpenCodes, useRound } from './queries'

/** The round: which boxes to open, in the order that keeps the doors shut, and why. */
export function Component() {
  const [moment] = useMoment()
  const round = useRound(moment)
  const { boxes: closed } = useWaiting()
  const open = useOpenCodes()
  if (!round.data) return <NoRound error={round.error} />
  const { boxes } = round.data
  const due = boxesDue(boxes, closed)
  const shut = boxes.filter((box) => !due.includes(box))
  const first = due[0]
  return (
    <Stack gap={6} maxWidth="53.75rem">
      <Flex align="center" wrap="wrap" columnGap={5} rowGap={2}>
        <Title>Round</Title>
        <Span color="soft">
          {due.length === 0
            ? moment
              ? 'No box needed opening then.'
              : 'No box needs opening today.'
            : `${due.length} of ${counted(boxes.length, 'box', 'boxes')} to open`}
        </Span>
        <When asOf={round.data.as_of} />
        {first && (
          <Box marginStart={{ md: 'auto' }} width={{ base: '100%', md: 'auto' }}>
            <Button asChild variant="act" width="100%">
              <Link to={`/round/${encodeURIComponent(first.name)}`}>
                Open {first.name}, the first
              </Link>
            </Button>
          </Box>
        )}
      </Flex>
      <Deliveries />
      {due.length > 0 && (
        <ol aria-label="To open">
          {due.map((box) => (
            <Line key={box.name} box={box} left={open.includes(box.name)} />
          ))}
        </ol>
      )}
      {shut.length > 0 && (
        <section aria-labelledby="shut">
          <Heading id="shut">No need to open</Heading>
          <ol>
            {shut.map((box) => (
              <Line key={box.name} box={box} left={open.includes(box.name)} />
            ))}
          </ol>
        </section>
      )}
    </Stack>
  )
}

function Line({ box, left }: { box: RoundBox; left: boolean }) {
  return (
    <chakra.li
      display="grid"
      gridTemplateColumns={{ base: '5.75rem minmax(0, 1fr)', md: '7.5rem 1fr auto' }}
      css={ONE_COLUMN}
      columnGap={4}
      rowGap={2}
      alignItems="center"
      borderTop="1.5px solid"
      borderColor="line"
      py={3}
    >
      <Link to={`/round/${encodeURIComponent(box.name)}`} aria-label={`Open box ${box.name}`}>
        <BoxDrawing
          eggs={box.eggs.map(asLook)}
          medium=""
          width={120}
          label={`Box ${box.name} at its last visit`}
        />
      </Link>
      <div>
        <Box>
          <Link to={`/round/${encodeURIComponent(box.name)}`}>
            <Strong fontSize="large" textDecoration="underline" textUnderlineOffset="4px">
              {box.name}
            </Strong>
          </Link>{' '}
          <Span color="soft">
            {box.cabinet}, {box.shelf}; {stagesOf(box)}
            {left && ', left open on this device'}
          </Span>
        </Box>
        {box.due.length === 0 && box.postponed.length === 0 && (
          <Span color="soft">
            {box.visited ? `Last opened ${day(box.last_visit_at)}.` : 'Not opened since lay day.'}
          </Span>
        )}
        <DueLines
          box={box.name}
          code={box.clutches[0]?.code ?? ''}
          due={box.due}
          postponed={box.postponed}
        />
      </div>
    </chakra.li>
  )
}
