import { Box, chakra, Grid, Span, Strong, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import { answer, api } from '@/shared/api/client'
import { asLook } from '@/shared/api/eggLook'
import { useAct } from '@/shared/api/queries'
import { dayAndTime } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { CutForm } from './CutForm'
import { HourStrip } from './HourStrip'
import { type HourSpan, lasted } from './hours'
import type { HatchingClutch, HatchingEgg } from './queries'

/** Egg, hours, taps: the columns of every row, and of the scale above them. */
export const ROW = {
  display: 'grid',
  gridTemplateColumns: { base: '64px minmax(0, 1fr)', md: '76px minmax(0, 1fr) 252px' },
  columnGap: 4,
} as const

/** One egg at hatch: drawn, by the hour, what to do and why, and the tap that records it. */
export function EggRow({
  hatching,
  clutch,
  span,
  asOf,
  seenAt,
}: {
  hatching: HatchingEgg
  clutch: HatchingClutch
  span: HourSpan
  asOf: string
  seenAt: string | null
}) {
  const [cutting, setCutting] = useState(false)
  // Keeps the room of its taps, so that the next row's do not come to lie under the thumb.
  const [tapped, setTapped] = useState(false)
  const onTapped = () => setTapped(true)
  const { egg, advice } = hatching
  const path = { code: clutch.code, number: egg.number }
  const pip = useAct(
    (at: string | null) =>
      answer(
        api.POST('/api/clutches/{code}/eggs/{number}/pip', { params: { path }, body: { at } }),
      ),
    (act) => act,
  )
  const out = useAct(
    (at: string | null) =>
      answer(
        api.POST('/api/clutches/{code}/eggs/{number}/emergence', {
          params: { path },
          body: { at },
        }),
      ),
    (act) => act,
  )
  const open = clutch.finished_at === null && !egg.removed_at && hatching.fate === null
  const window = advice?.kind === 'consider a window'
  return (
    <chakra.li
      {...ROW}
      rowGap={2}
      alignItems="center"
      py={3}
      borderTop="1.5px solid"
      borderColor="line"
      aria-label={`Egg ${egg.number}`}
    >
      <Link to={`/clutches/${clutch.code}/eggs/${egg.number}`}>
        <EggDrawing egg={asLook(egg)} size={64} day={clutch.day} showNumber />
      </Link>
      <div>
        {clutch.first_pipped_at && <HourStrip hatching={hatching} clutch={clutch} span={span} />}
        <Text lineHeight={1.3} mt={1}>
          <Strong color={window ? 'yolkInk' : 'ink'}>
            Egg {egg.number} {stateOf(hatching, asOf)}
          </Strong>{' '}
          {advice && advice.kind !== 'out' && (
            <>
              {advice.text} <Span color="soft">{advice.reason}</Span>
            </>
          )}
        </Text>
      </div>
      {(open || tapped) && (
        <Grid
          gridColumn={{ base: '1 / -1', md: 'auto' }}
          gap={2}
          minHeight="thumb"
          // Each tap has its own column: none comes to lie under a thumb that taps twice.
          templateColumns={{
            base: 'minmax(0, 1fr) minmax(0, 1fr) minmax(0, 4rem)',
            md: '1fr auto 4rem',
          }}
        >
          {open && (
            <>
              {!egg.pipped_at && (
                <Button
                  type="button"
                  gridColumn={1}
                  justifySelf={{ md: 'end' }}
                  disabled={pip.isPending}
                  aria-label={`Egg ${egg.number} pipped`}
                  onClick={() => pip.mutate(seenAt, { onSuccess: onTapped })}
                >
                  Pipped
                </Button>
              )}
              {clutch.first_pipped_at && (
                <Button
                  type="button"
                  gridColumn={2}
                  disabled={out.isPending}
                  aria-label={`Egg ${egg.number} is out`}
                  onClick={() => out.mutate(seenAt, { onSuccess: onTapped })}
                >
                  Out
                </Button>
              )}
              {!egg.cut_at && (
                <Button
                  type="button"
                  variant="bare"
                  gridColumn={3}
                  aria-expanded={cutting}
                  aria-label={`Egg ${egg.number} was cut`}
                  onClick={() => setCutting(!cutting)}
                >
                  Cut
                </Button>
              )}
            </>
          )}
        </Grid>
      )}
      {cutting && (
        <Box gridColumn="1 / -1">
          <CutForm
            code={clutch.code}
            number={egg.number}
            seenAt={seenAt}
            onDone={() => setCutting(false)}
          />
        </Box>
      )}
    </chakra.li>
  )
}

/** "pipped 9 h ago.", "closed.", "dead in egg, late." */
function stateOf({ egg, fate, stage, declared }: HatchingEgg, asOf: string): string {
  if (declared && fate) return `${fate}${stage ? `, ${stage}` : ''}.`
  if (egg.emerged_at) return `out since ${dayAndTime(egg.emerged_at)}.`
  if (egg.removed_at) return 'taken out.'
  const cut = egg.cut_at ? ` Cut ${lasted(egg.cut_at, asOf)} ago.` : ''
  if (egg.pipped_at) return `pipped ${lasted(egg.pipped_at, asOf)} ago.${cut}`
  return `closed.${cut}`
}
