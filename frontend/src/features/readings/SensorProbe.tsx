import { Box } from '@chakra-ui/react'
import { useFormContext } from 'react-hook-form'
import type { Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { SelectField, TextField } from '@/shared/ui/fields'
import { difference, useTemperatureUnit } from '@/shared/units'
import type { Place } from './places'

export const NEW = 'new'
export const LEFT_OUT = '0'

export type SensorValues = {
  probe: string
  name: string
  place: string
  since: string
  checked: string
}

/** Which probe a sensor is: a known one, a new one at its place, or none. */
export function SensorProbe({
  at,
  label,
  mayLeaveOut,
  places,
  loggers,
}: {
  /** Its place among the sensors of the form. */
  at: number
  label: string
  mayLeaveOut: boolean
  places: Place[]
  loggers: Schemas['HungProbeResponse'][]
}) {
  const unit = useTemperatureUnit()
  const rules = useRules().data?.climate
  const form = useFormContext<{ sensors: SensorValues[] }>()
  const allowed = (sdC: number | undefined) =>
    sdC === undefined ? '' : `: forecasts allow ±${difference(sdC, unit)}`
  const field = (name: keyof SensorValues) => `sensors.${at}.${name}` as const
  return (
    <Box mb={mayLeaveOut ? 6 : 0}>
      <SelectField
        name={field('probe')}
        label={label}
        required
        options={[
          { value: '', label: 'choose' },
          ...loggers.map((p) => ({ value: String(p.id), label: `${p.name} (${p.place})` })),
          { value: NEW, label: 'a new probe' },
          ...(mayLeaveOut ? [{ value: LEFT_OUT, label: 'none: leave it out' }] : []),
        ]}
      />
      {form.watch(field('probe')) === NEW && (
        <>
          <TextField
            name={field('name')}
            label="Its name"
            required
            help="As written on the logger."
          />
          <SelectField name={field('place')} label="Where it hangs" options={places} />
          <TextField name={field('since')} label="Since" type="datetime-local" required />
          <SelectField
            name={field('checked')}
            label="Checked against a reference thermometer"
            options={[
              { value: 'no', label: `no${allowed(rules?.unchecked_probe_sd_c)}` },
              { value: 'yes', label: `yes${allowed(rules?.checked_probe_sd_c)}` },
            ]}
          />
        </>
      )}
    </Box>
  )
}
