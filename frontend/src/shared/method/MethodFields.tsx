import { Grid, Text } from '@chakra-ui/react'
import { type UseFormReturn, useFormContext } from 'react-hook-form'
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

/** The lines of a method, each with what speaks for what is chosen. */
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
  const values = form.watch()
  const setDay = values.cutting === 'on a set day'
  const medium = told.media.find((m) => m.name === values.medium)
  const pick = (line: keyof typeof LABELS) => (
    <Line key={line} reason={told.reasons[line]?.[values[line]]}>
      <SelectField
        name={line}
        label={LABELS[line]}
        options={line === 'medium' ? told.media.map((m) => m.name) : (told.choices[line] ?? [])}
        onChoose={(chosen) => line === 'medium' && follow(form, told.media, chosen)}
      />
    </Line>
  )
  return (
    <div>
      {!fixedDam && pick('dam')}
      {!maternal && (
        <>
          {pick('medium')}
          {medium?.water_by === 'by weight' ? (
            <Line reason={medium.how}>
              <TextField
                name="ratio"
                label="Water, g per g of dry medium"
                inputMode="decimal"
                check={(text) => !text.trim() || typedNumber(text) > 0 || 'A number, or empty.'}
              />
            </Line>
          ) : (
            <Text mb={4}>{medium?.how}</Text>
          )}
          {pick('contact')}
          {pick('closing')}
          {pick('clump')}
        </>
      )}
      <Line reason={ofSetPoint(told, typedTemperature(values.temperature_c, unit))}>
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

/** Water to dry mass that is usual of a medium, as it is typed; empty where nothing is mixed. */
export function usualRatio(media: Schemas['MediumResponse'][], name: string): string {
  return media.find((medium) => medium.name === name)?.ratio?.toString() ?? ''
}

/** What goes with a medium: its usual water, and the grid of those that eggs must not touch. */
function follow(
  form: UseFormReturn<MethodValues>,
  media: Schemas['MediumResponse'][],
  name: string,
) {
  form.setValue('ratio', usualRatio(media, name))
  if (media.find((medium) => medium.name === name)?.on_grid) form.setValue('contact', 'on a grid')
}

function ofSetPoint(told: Schemas['MethodsResponse'], celsius: number): string | undefined {
  return told.temperatures.findLast((school) => celsius > school.above_c)?.reason
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
