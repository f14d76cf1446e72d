import { Stack, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { effectOf, FAULT_WORDS, spanOf } from '@/shared/climate/faults'
import { dayAndTime } from '@/shared/dates'
import { temperature, useTemperatureUnit } from '@/shared/units'
import { Origin } from './Origin'

/** Whether a fault tells of a cold spell already. */
function covers(fault: Schemas['FaultResponse'], spell: Schemas['ColdSpellResponse']): boolean {
  return (
    Date.parse(fault.start) <= Date.parse(spell.start) &&
    (fault.end === null || Date.parse(fault.end) >= Date.parse(spell.end))
  )
}

/** What the house's own finished clutches do to this forecast. */
function Learned({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const { clutches, in_cabinet, days, sentences } = clutch.learned
  const size = Math.abs(days)
  const without =
    size < 0.1
      ? 'without them it would be the same'
      : `without them it would be ${size.toFixed(1)} days ${days < 0 ? 'later' : 'earlier'}`
  return (
    <>
      {sentences.map((sentence) => (
        <p key={sentence}>{sentence}</p>
      ))}
      <p>
        Based on {clutches} of your clutches
        {in_cabinet > 0 && `, ${in_cabinet} of them in this cabinet`}; {without}.
      </p>
    </>
  )
}

/** What the forecast rests on: measured or not, the gaps, cold spells, and the days to come. */
export function RestsOn({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const unit = useTemperatureUnit()
  const recent = useRules().data?.climate.recent_days
  const measured = (clutch.forecast?.measured_share ?? 0) > 0
  return (
    <Stack mt={4} gap={1}>
      <p>
        {clutch.rests_on} From today on:{' '}
        {temperature(
          clutch.boxes.find(({ name }) => name === clutch.box)?.temperature_c ?? Number.NaN,
          unit,
        )}
        , {measured && recent ? `what was usual over the last ${recent} days` : 'as until now'}.
      </p>
      <Origin clutch={clutch} />
      {clutch.learned.clutches > 0 && <Learned clutch={clutch} />}
      {clutch.faults.map((fault) => (
        <p key={`${fault.kind}-${fault.start}`}>
          <strong>{FAULT_WORDS[fault.kind].name}</strong>, {spanOf(fault)}
          {effectOf(fault, unit) && `: ${effectOf(fault, unit)}`}.
        </p>
      ))}
      {clutch.cold_spells
        .filter((spell) => !clutch.faults.some((f) => covers(f, spell)))
        .map((spell) => (
          <p key={spell.start}>
            Cold from {dayAndTime(spell.start)} to {dayAndTime(spell.end)}, down to{' '}
            {temperature(spell.lowest_c, unit)}: it moved the pips by{' '}
            <strong>{spell.delay_days.toFixed(1)} days</strong>.
          </p>
        ))}
      {measured && clutch.gaps.length > 0 && clutch.gaps.length <= 6 && (
        <Text color="soft" fontSize="small">
          Not measured:{' '}
          {clutch.gaps
            .map((gap) => `${dayAndTime(gap.start)} to ${dayAndTime(gap.end)} (${gap.filled_from})`)
            .join('; ')}
          .
        </Text>
      )}
    </Stack>
  )
}
