import { Box, chakra, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct, useRules } from '@/shared/api/queries'
import { effectOf, FAULT_WORDS, type Fault, ofReadings, spanOf } from '@/shared/climate/faults'
import { Button } from '@/shared/ui/Button'
import { temperature, useTemperatureUnit } from '@/shared/units'

const SHOWN = 6

/** Faults recognised in the record, newest first, with what they did. */
export function Faults({ cabinet }: { cabinet: Schemas['CabinetResponse'] }) {
  const [all, setAll] = useState(false)
  const faults = [...cabinet.faults].reverse()
  const { exposure } = cabinet
  const unit = useTemperatureUnit()
  const rules = useRules().data?.climate
  return (
    <>
      {faults.length === 0 && (
        <p>Nothing in the last {cabinet.faults_days} days that its probes could show.</p>
      )}
      <ul>
        {faults.slice(0, all ? undefined : SHOWN).map((fault) => (
          <FaultLine
            key={`${fault.kind}-${fault.start}-${fault.probes.join()}`}
            fault={fault}
            asOf={cabinet.as_of}
          />
        ))}
      </ul>
      {faults.length > SHOWN && !all && (
        <Button type="button" variant="bare" onClick={() => setAll(true)}>
          All {faults.length}
        </Button>
      )}
      <Text mt={3} color="soft" fontSize="small">
        {rules && exposure.hours_measured < 24 && 'Less than a day was measured in it so far.'}
        {rules &&
          exposure.hours_measured >= 24 &&
          `In the ${measured(exposure)}, where it was worst: ${[
            spent(
              exposure.hours_harmful,
              exposure.degree_hours_harmful,
              `above ${temperature(rules.harm_above_c, unit)}`,
            ),
            spent(
              exposure.hours_slow,
              exposure.degree_hours_slow,
              `below ${temperature(rules.slow_below_c, unit)}`,
            ),
          ].join(', ')}.`}
      </Text>
    </>
  )
}

/** "last 60 days", or "12 days measured of the last 60". */
function measured({ days, hours_measured }: Schemas['ExposureResponse']): string {
  const known = Math.round(hours_measured / 24)
  return known < days ? `${known} days measured of the last ${days}` : `last ${days} days`
}

/** "14 h above 33.5 °C (6 degree-hours)", or "never above 33.5 °C". */
function spent(hours: number, degreeHours: number, beyond: string): string {
  if (hours < 0.5) return `never ${beyond}`
  return `${hours.toFixed(0)} h ${beyond} (${degreeHours.toFixed(0)} degree-hours)`
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
  const leavable = ofReadings(fault) && fault.kind !== 'unplugged'
  return (
    <chakra.li py={2} borderTop="1px solid" borderColor="line">
      <strong>{words.name}</strong>
      {ofReadings(fault)
        ? `: ${fault.probes.join(', ')}`
        : fault.shelves.length > 0 && `: ${fault.shelves.join(', ')}`}
      <Box color="soft" fontSize="small">
        {spanOf(fault)}
        {effect && `; ${effect}`}. {words.look}
      </Box>
      {leavable && (
        <Button
          type="button"
          variant="bare"
          size="small"
          ms={-3}
          disabled={leaveOut.isPending}
          onClick={() => leaveOut.mutate()}
        >
          Leave these readings out of the forecasts
        </Button>
      )}
    </chakra.li>
  )
}
