import { chakra, Span } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { dayAndTime, fromInputMoment, inputMoment } from '@/shared/dates'
import { heldMoment } from '@/shared/moment/moment'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { typedTemperature, useTemperatureUnit } from '@/shared/units'

/** What the thermostat is set to, from when; and what was done in the cabinet before. */
export function SetPointForm({ cabinet }: { cabinet: Schemas['CabinetResponse'] }) {
  const unit = useTemperatureUnit()
  const form = useForm({
    defaultValues: { value: '', at: inputMoment(heldMoment() ?? cabinet.as_of) },
  })
  const set = useAct(
    ({ value, at }: { value: string; at: string }) =>
      answer(
        api.POST('/api/cabinets/{name}/set-points', {
          params: { path: { name: cabinet.name } },
          body: { temperature_c: typedTemperature(value, unit), at: fromInputMoment(at) },
        }),
      ),
    (act) => act,
    (problem) => form.setError('value', { message: problem.detail }),
  )
  const events = [...cabinet.events].reverse().slice(0, 8)
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        onSubmit={form.handleSubmit((said) =>
          set.mutate(said, { onSuccess: () => form.resetField('value') }),
        )}
      >
        <TextField
          name="value"
          label={`Set to, °${unit}`}
          inputMode="decimal"
          required
          check={(text) =>
            !Number.isNaN(typedTemperature(text, unit)) || 'A temperature, like 31.5 or 88.7F.'
          }
          help="What the display says. What the probes say is kept apart from it."
        />
        <TextField name="at" label="Since" type="datetime-local" required />
        <Button type="submit" disabled={set.isPending}>
          Record
        </Button>
      </chakra.form>
      <chakra.ul mt={6} aria-label="Done in this cabinet">
        {events.map((event) => (
          <chakra.li
            key={`${event.at}-${event.text}`}
            display="flex"
            justifyContent="space-between"
            gap={4}
            py={1}
            borderTop="1px solid"
            borderColor="line"
          >
            <span>{event.text}</span>
            <Span color="soft" whiteSpace="var(--one-line)">
              {dayAndTime(event.at)}
            </Span>
          </chakra.li>
        ))}
      </chakra.ul>
    </FormProvider>
  )
}
