import { Box, chakra, Span, Strong } from '@chakra-ui/react'
import { Link } from 'react-router'
import { BoxDrawing } from '@/eggs/BoxDrawing'
import { asLook } from '@/shared/api/eggLook'
import { day } from '@/shared/dates'
import { DueLines } from '@/shared/rounds/DueLines'
import { ONE_COLUMN } from '@/shared/theme/tight'
import { type RoundBox, stagesOf } from './queries'

/** A box of the round: as it was last seen, where it stands, and why it is opened. */
export function RoundLine({ box, left }: { box: RoundBox; left: boolean }) {
  const to = `/round/${encodeURIComponent(box.name)}`
  return (
    <chakra.div
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
      <Link to={to} aria-label={`Open box ${box.name}`}>
        <BoxDrawing
          eggs={box.eggs.map(asLook)}
          medium=""
          width={120}
          label={`Box ${box.name} at its last visit`}
        />
      </Link>
      <div>
        <Box>
          <Link to={to}>
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
    </chakra.div>
  )
}
