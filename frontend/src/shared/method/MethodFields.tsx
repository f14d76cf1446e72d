import { Grid, Text } from '@chakra-ui/react'
import { useFormContext } from 'react-hook-form'
import type { Schemas } from '@/shared/api/client'
import { SelectField, TextField } from '@/shared/ui/fields'
import {
  fromCelsius,
  type TemperatureUnit,
  typedNumber,
  typedTemperature,
  useTemperatureUnit,
} from '@/shared/units'

type Method = Schemas['Method']

export type MethodValues = Record<
  | 'name'
  | 'medium'
  | 'ratio'
  | 'contact'
  | 'closing'
  | 'temperature_c'
  | 'visits'
  | 'mould'
  | 'cutting'
  | 'set_day'
  | 'last_days'
  | 'clump'
  | 'tub'
  | 'dam',
  string
>

const LABELS = {
  dam: 'Eggs and dam',
  medium: 'Medium',
  contact: 'Contact',
  closing: 'Closing',
  visits: 'Visits',
  mould: 'Mould',
  cutting: 'Cutting',
  last_days: 'Last days',
  clump: 'Clump',
  tub: "Dam's tub",
} as const

/** The lines of a method, each with the reason for the standard. */
export function MethodFields({
  told,
  fixedDam = false,
}: {
  told: Schemas['MethodsResponse']
  /** A clutch stays where it was laid: box or dam. */
  fixedDam?: boolean
}) {
  const form = useFormContext<MethodValues>()
  const unit = useTemperatureUnit()
  const maternal = form.watch('dam') === 'maternal incubation'
  const setDay = form.watch('cutting') === 'on a set day'
  const pick = (line: keyof typeof LABELS) => (
    <Line key={line} reason={told.reasons[line]}>
      <SelectField
        name={line}
        label={LABELS[line]}
        options={line === 'medium' ? told.media : (told.choices[line] ?? [])}
      />
    </Line>
  )
  return (
    <div>
      {!fixedDam && pick('dam')}
      {!maternal && (
        <>
          {pick('medium')}
          <Line reason={told.reasons.ratio}>
            <TextField
              name="ratio"
              label="Water, g per g of dry medium (empty when it is not mixed by weight)"
              inputMode="decimal"
              check={(text) => !text.trim() || typedNumber(text) > 0 || 'A number, or empty.'}
            />
          </Line>
          {pick('contact')}
          {pick('closing')}
          {pick('clump')}
        </>
      )}
      <Line reason={told.reasons.temperature_c}>
        <TextField
          name="temperature_c"
          label={`Temperature, °${unit}`}
          inputMode="decimal"
          required
          check={(text) => !Number.isNaN(typedTemperature(text, unit)) || 'A number, like 31.5'}
        />
      </Line>
      {!maternal && pick('visits')}
      {pick('mould')}
      {pick('cutting')}
      {setDay && (
        <Line reason="Never before day 55 at the standard temperature; later where it is cooler.">
          <TextField
            name="set_day"
            label="Set day"
            inputMode="numeric"
            required
            check={(text) => /^\d+$/.test(text.trim()) || 'A day, like 56.'}
          />
        </Line>
      )}
      {pick('last_days')}
      {!maternal && pick('tub')}
    </div>
  )
}

function Line({ reason, children }: { reason: string | undefined; children: React.ReactNode }) {
  return (
    <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap={6} alignItems="center">
      {children}
      <Text color="soft" fontSize="small" mt={{ base: -3, md: 2 }} mb={{ base: 4, md: 0 }}>
        {reason}
      </Text>
    </Grid>
  )
}

export function valuesOfMethod(method: Method, unit: TemperatureUnit): MethodValues {
  return {
    ...method,
    ratio: method.ratio?.toString() ?? '',
    temperature_c: fromCelsius(method.temperature_c, unit).toFixed(1),
    set_day: method.set_day?.toString() ?? '',
  }
}

/** The method as typed; empty where nothing was. */
export function methodOf(values: MethodValues, unit: TemperatureUnit): Method {
  const { ratio, set_day, temperature_c, ...lines } = values
  return {
    ...(lines as unknown as Method),
    ratio: ratio.trim() ? typedNumber(ratio) : null,
    temperature_c: Math.round(typedTemperature(temperature_c, unit) * 1000) / 1000,
    set_day: set_day.trim() ? typedNumber(set_day) : null,
  }
}
