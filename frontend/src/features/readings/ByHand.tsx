import { FormProvider, useForm } from 'react-hook-form'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { heldMoment } from '@/shared/moment/moment'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { typedNumber, typedTemperature, useTemperatureUnit } from '@/shared/units'
import type { Place } from './places'

/** One reading of a thermometer. */
export function ByHand({ places, now }: { places: Place[]; now: string }) {
  const unit = useTemperatureUnit()
  const form = useForm({
    defaultValues: {
      place: places[0]?.value ?? '',
      temperature: '',
      humidity: '',
      at: inputMoment(heldMoment() ?? now),
    },
  })
  const read = useAct(
    (values: { place: string; temperature: string; humidity: string; at: string }) =>
      answer(
        api.POST('/api/readings/by-hand', {
          body: {
            place: places.find((p) => p.value === values.place)?.asked ?? {},
            temperature_c: typedTemperature(values.temperature, unit),
            humidity: values.humidity.trim() ? typedNumber(values.humidity) / 100 : null,
            at: fromInputMoment(values.at),
          },
        }),
      ),
    (act) => act,
    (problem) => {
      const field = problem.fields[0]?.field
      const name = field === 'humidity' || field === 'at' ? field : 'temperature'
      form.setError(name, { message: problem.detail })
    },
  )
  return (
    <FormProvider {...form}>
      <form
        noValidate
        onSubmit={form.handleSubmit((values) =>
          read.mutate(values, {
            onSuccess: () => form.reset({ ...values, temperature: '', humidity: '' }),
          }),
        )}
      >
        <SelectField name="place" label="Where" options={places} />
        <TextField
          name="temperature"
          label={`Temperature, °${unit}`}
          inputMode="decimal"
          required
          check={(text) => !Number.isNaN(typedTemperature(text, unit)) || 'A number, like 31.2'}
        />
        <TextField
          name="humidity"
          label="Humidity, %"
          inputMode="decimal"
          help="Leave empty if not read."
          check={(text) =>
            !text.trim() ||
            (typedNumber(text) >= 0 && typedNumber(text) <= 100) ||
            'Between 0 and 100 %.'
          }
        />
        <TextField name="at" label="When" type="datetime-local" required />
        <Button type="submit" disabled={read.isPending}>
          Record the reading
        </Button>
      </form>
    </FormProvider>
  )
}
