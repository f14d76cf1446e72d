import { Box, Flex, Span, Stack } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { counted } from '@/shared/counted'
import { Narrow } from '@/shared/many/Narrow'
import { TickedRow } from '@/shared/many/TickedRow'
import { useNarrowing } from '@/shared/many/useNarrowing'
import { useSeveral } from '@/shared/many/useSeveral'
import { WindowedList } from '@/shared/many/WindowedList'
import { useMoment } from '@/shared/moment/moment'
import { When } from '@/shared/moment/When'
import { useWaiting } from '@/shared/offline/useDelivery'
import { Button } from '@/shared/ui/Button'
import { Heading, Title } from '@/shared/ui/page'
import { Deliveries } from './Deliveries'
import { NoRound } from './NoRound'
import { NARROWING } from './narrowing'
import { boxesDue, type RoundBox, useOpenCodes, useRound } from './queries'
import { RoundLine } from './RoundLine'
import { SeveralBoxes } from './SeveralBoxes'
import { Sharing } from './Sharing'
import { isOthers, useShares } from './shares'

/** How high a line is by itself, px. */
const LINE_PX = 150

/** The round: which boxes to open, in the order that keeps the doors shut, and why. */
export function Component() {
  const [moment] = useMoment()
  const round = useRound(moment)
  if (!round.data) return <NoRound error={round.error} />
  return <Round boxes={round.data.boxes} asOf={round.data.as_of} moment={moment} />
}

function Round({
  boxes,
  asOf,
  moment,
}: {
  boxes: RoundBox[]
  asOf: string
  moment: string | null
}) {
  const { boxes: closed } = useWaiting()
  const open = useOpenCodes()
  const narrowing = useNarrowing(boxes, NARROWING)
  const { items, many } = narrowing
  const { possible, shares } = useShares()
  const cabinets = [...new Set(boxes.map(({ cabinet }) => cabinet))]
  const all = boxesDue(items, closed)
  const others = all.filter(isOthers(shares))
  const due = all.filter((box) => !others.includes(box))
  const shut = items.filter((box) => !all.includes(box))
  const listed = [...due, ...others, ...shut]
  const several = useSeveral(listed.map(({ name }) => name))
  const first = due[0]
  const needs = narrowing.chosen.needs
  const choose = !several.choosing && <Button onClick={several.start}>Choose several</Button>
  const row = (box: RoundBox) => (
    <TickedRow several={several} id={box.name} name={box.name}>
      <RoundLine box={box} left={open.includes(box.name)} />
    </TickedRow>
  )
  return (
    <Stack gap={6} maxWidth={many ? undefined : '53.75rem'}>
      <Flex align="center" wrap="wrap" columnGap={5} rowGap={2}>
        <Title>Round</Title>
        <Span color="soft">{inAll(boxesDue(boxes, closed), boxes, moment)}</Span>
        <When asOf={asOf} />
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
      {possible && cabinets.length > 1 && <Sharing cabinets={cabinets} shares={shares} />}
      <Narrow narrowing={narrowing} what="boxes" of={counted(boxes.length, 'box', 'boxes')}>
        {choose}
      </Narrow>
      {due.length > 0 && (
        <WindowedList
          label="To open"
          items={due}
          keyOf={({ name }) => name}
          height={LINE_PX}
          row={row}
        />
      )}
      {others.length > 0 && (
        <Box as="section" aria-labelledby="others">
          <Heading id="others">Others open these</Heading>
          <WindowedList items={others} keyOf={({ name }) => name} height={LINE_PX} row={row} />
        </Box>
      )}
      {shut.length > 0 && (
        <Box as="section" aria-labelledby="shut">
          <Heading id="shut">No need to open</Heading>
          <WindowedList items={shut} keyOf={({ name }) => name} height={LINE_PX} row={row} />
        </Box>
      )}
      {!many && boxes.length > 1 && <Box>{choose}</Box>}
      <SeveralBoxes
        several={several}
        boxes={listed}
        kind={needs && needs !== 'pressing' ? (needs as Schemas['DueKind']) : null}
      />
    </Stack>
  )
}

function inAll(due: RoundBox[], boxes: RoundBox[], moment: string | null): string {
  if (due.length > 0) return `${due.length} of ${counted(boxes.length, 'box', 'boxes')} to open`
  return moment ? 'No box needed opening then.' : 'No box needs opening today.'
}
