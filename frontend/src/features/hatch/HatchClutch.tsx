import { chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { Caution } from '@/shared/ui/Caution'
import { EggRow, ROW } from './EggRow'
import { HourScale, StripLegend } from './HourStrip'
import { spanOf } from './hours'
import { byNeed } from './need'
import type { HatchingClutch } from './queries'
import { momentOf, SeenWhen, type When } from './SeenWhen'

const NOW: When = { hoursAgo: 0 }

/** The eggs of a clutch by the hour, each with its advice and its taps. */
export function HatchClutch({ clutch, asOf }: { clutch: HatchingClutch; asOf: string }) {
  const [when, setWhen] = useState<When>(NOW)
  const span = spanOf(clutch, asOf)
  const begun = clutch.first_pipped_at !== null
  const eggs = byNeed(clutch.eggs.filter(({ egg }) => !egg.slug))
  const cutting = eggs.some(({ advice }) => advice?.kind === 'consider a window')
  const helping = cutting || eggs.some(({ advice }) => advice?.kind === 'widen')
  return (
    <div>
      {cutting && <Caution moment="blades" />}
      {helping && <Caution moment="at the pip" />}
      {begun && (
        <chakra.div {...ROW}>
          <chakra.div gridColumn={2}>
            <HourScale span={span} />
          </chakra.div>
        </chakra.div>
      )}
      <chakra.ul listStyleType="none">
        {eggs.map((hatching) => (
          <EggRow
            key={hatching.egg.number}
            hatching={hatching}
            clutch={clutch}
            span={span}
            asOf={asOf}
            seenAt={momentOf(when, asOf)}
            onRecorded={() => setWhen(NOW)}
          />
        ))}
      </chakra.ul>
      {begun && <StripLegend />}
      {clutch.finished_at === null && (
        <chakra.div mt={3} maxWidth="640px">
          <SeenWhen when={when} asOf={asOf} onChange={setWhen} />
        </chakra.div>
      )}
    </div>
  )
}
