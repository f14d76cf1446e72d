import { chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { effectOf, FAULT_WORDS, type Fault, spanOf } from '@/shared/climate/faults'
import { Button } from '@/shared/ui/Button'
import { useTemperatureUnit } from '@/shared/units'

/** Of these the readings are wrong, not the temperature: they can be left out. */
const OF_THE_READINGS = ['stuck', 'fallen', 'drift']

const SHOWN = 6

/** Faults recognised in the record, newest first, with what they did. */
export function Faults({ cabinet }: { cabinet: Schemas['CabinetTold'] }) {
  const [all, setAll] = useState(false)
  const faults = [...cabinet.faults].reverse()
  const { exposure } = cabinet
  return (
    <>
      {faults.length === 0 && <p>Nothing in the last 75 days that its probes could show.</p>}
      <chakra.ul listStyleType="none">
        {faults.slice(0, all ? undefined : SHOWN).map((fault) => (
          <FaultLine
            key={`${fault.kind}-${fault.start}-${fault.probes.join()}`}
            fault={fault}
            asOf={cabinet.as_of}
          />
        ))}
      </chakra.ul>
      {faults.length > SHOWN && !all && (
        <Button type="button" variant="bare" onClick={() => setAll(true)}>
          All {faults.length}
        </Button>
      )}
      <chakra.p mt={3} color="soft" fontSize="0.94em">
        In the last 60 days, where it was worst:{' '}
        {exposure.hours_harmful >= 0.5
          ? `${exposure.hours_harmful.toFixed(0)} h above 33.5 °C (${exposure.degree_hours_harmful.toFixed(0)} degree-hours)`
          : 'never above 33.5 °C'}
        ,{' '}
        {exposure.hours_slow >= 0.5
          ? `${exposure.hours_slow.toFixed(0)} h below 27 °C (${exposure.degree_hours_slow.toFixed(0)} degree-hours)`
          : 'never below 27 °C'}
        .
      </chakra.p>
    </>
  )
}

function FaultLine({ fault, asOf }: { fault: Fault; asOf: string }) {
  const unit = useTemperatureUnit()
  const leaveOut = useAct(
    () =>
      answer(
        api.POST('/api/probes/{probe}/left-out', {
          params: { path: { probe: fault.probe_ids[0] ?? 0 } },
          body: {
            start: fault.start,
            end: fault.end ?? asOf,
            reason: FAULT_WORDS[fault.kind].name.toLowerCase(),
          },
        }),
      ),
    (act) => act,
  )
  const words = FAULT_WORDS[fault.kind]
  const effect = effectOf(fault, unit)
  const ofReadings = OF_THE_READINGS.includes(fault.kind)
  return (
    <chakra.li py={2} borderTop="1px solid" borderColor="line">
      <strong>{words.name}</strong>
      {ofReadings || fault.kind === 'unplugged'
        ? `: ${fault.probes.join(', ')}`
        : fault.shelves.length > 0 && `: ${fault.shelves.join(', ')}`}
      <chakra.div color="soft" fontSize="0.94em">
        {spanOf(fault)}
        {effect && `; ${effect}`}. {words.look}
      </chakra.div>
      {ofReadings && (
        <Button
          type="button"
          variant="bare"
          size="small"
          disabled={leaveOut.isPending}
          onClick={() => leaveOut.mutate()}
        >
          Leave these readings out of the forecasts
        </Button>
      )}
    </chakra.li>
  )
}
