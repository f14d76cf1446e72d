import { Box, chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { inputMoment } from '@/shared/dates'
import { heldMoment, holdMoment } from '@/shared/moment/moment'
import { Caution } from '@/shared/ui/Caution'
import { useHeldOrder } from '@/shared/ui/useHeldOrder'
import { useStayPut } from '@/shared/ui/useStayPut'
import { EggRow, ROW } from './EggRow'
import { HourScale, StripLegend } from './HourStrip'
import { spanOf } from './hours'
import { byNeed } from './need'
import type { HatchingClutch, HatchingEgg } from './queries'
import { momentOf, SeenWhen, type When } from './SeenWhen'
import { SeveralAtOnce } from './SeveralAtOnce'

const numberOf = ({ egg }: HatchingEgg) => egg.number

/** The moment that is held on every page, or now. */
function asHeld(): When {
  const moment = heldMoment()
  return moment === null ? { hoursAgo: 0 } : { moment: inputMoment(moment) }
}

/** The eggs of a clutch by the hour, each with its advice and its taps. */
export function HatchClutch({ clutch, asOf }: { clutch: HatchingClutch; asOf: string }) {
  const [when, setWhen] = useState(asHeld)
  const change = (next: When) => {
    setWhen(next)
    // One answer on the page: now is now for everything.
    if ('hoursAgo' in next && next.hoursAgo === 0) holdMoment(null)
  }
  const span = spanOf(clutch, asOf)
  const begun = clutch.first_pipped_at !== null
  const eggs = useHeldOrder(byNeed(clutch.eggs.filter(({ egg }) => !egg.slug)), numberOf)
  const list = useStayPut<HTMLUListElement>()
  const cutting = eggs.some(({ advice }) => advice?.kind === 'consider a window')
  const helping = cutting || eggs.some(({ advice }) => advice?.kind === 'widen')
  return (
    <div>
      {cutting && <Caution moment="blades" />}
      {helping && <Caution moment="at the pip" />}
      {begun && (
        <Box {...ROW}>
          <Box gridColumn={2}>
            <HourScale span={span} />
          </Box>
        </Box>
      )}
      <chakra.ul ref={list}>
        {eggs.map((hatching) => (
          <EggRow
            key={hatching.egg.number}
            hatching={hatching}
            clutch={clutch}
            span={span}
            asOf={asOf}
            seenAt={momentOf(when, asOf)}
          />
        ))}
      </chakra.ul>
      {begun && <StripLegend />}
      {clutch.finished_at === null && (
        <Box mt={3} maxWidth="40rem">
          <SeveralAtOnce clutch={clutch} seenAt={momentOf(when, asOf)} />
          <SeenWhen when={when} asOf={asOf} onChange={change} />
        </Box>
      )}
    </div>
  )
}
