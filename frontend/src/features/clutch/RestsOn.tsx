import { chakra } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { dayAndTime } from '@/shared/dates'
import { temperature, useTemperatureUnit } from '@/shared/units'

/** What the forecast rests on: measured or not, the gaps, cold spells, and the days to come. */
export function RestsOn({ clutch }: { clutch: Schemas['ClutchTold'] }) {
  const unit = useTemperatureUnit()
  const measured = (clutch.forecast?.measured_share ?? 0) > 0
  return (
    <chakra.div mt={4} display="flex" flexDirection="column" gap={1}>
      <p>
        {clutch.rests_on} From today on: {temperature(clutch.box.temperature_c, unit)},{' '}
        {measured ? 'the mean of the last 7 days' : 'as until now'}.
      </p>
      {clutch.cold_spells.map((spell) => (
        <p key={spell.start}>
          Cold from {dayAndTime(spell.start)} to {dayAndTime(spell.end)}, down to{' '}
          {temperature(spell.lowest_c, unit)}: it moved the pips by{' '}
          <strong>{spell.delay_days.toFixed(1)} days</strong>.
        </p>
      ))}
      {measured && clutch.gaps.length > 0 && clutch.gaps.length <= 6 && (
        <chakra.p color="soft" fontSize="0.92em">
          Not measured:{' '}
          {clutch.gaps
            .map((gap) => `${dayAndTime(gap.start)} to ${dayAndTime(gap.end)} (${gap.filled_from})`)
            .join('; ')}
          .
        </chakra.p>
      )}
    </chakra.div>
  )
}
