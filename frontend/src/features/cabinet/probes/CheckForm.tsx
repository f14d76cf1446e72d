import { Box, chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api } from '@/shared/api/client'
import { useAct, useRules } from '@/shared/api/queries'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { heldMoment } from '@/shared/moment/moment'
import { Button } from '@/shared/ui/Button'
import { Choices } from '@/shared/ui/Choices'
import { TextField } from '@/shared/ui/fields'
import { temperatureRange, typedNumber, typedTemperature, useTemperatureUnit } from '@/shared/units'
import type { ProbeFormProps } from './probeForm'

type Kind = 'reference' | 'salt'

/** A probe beside a reference thermometer, or in a bag with wet salt; the offset follows. */
export function CheckForm({ probe, asOf, onDone }: ProbeFormProps) {
  const unit = useTemperatureUnit()
  const salt = useRules().data?.climate.salt_humidity
  const [kind, setKind] = useState<Kind>('reference')
  const form = useForm({
    defaultValues: { shown: '', reference: '', at: inputMoment(heldMoment() ?? asOf) },
  })
  const check = useAct(
    ({ shown, reference, at }: { shown: string; reference: string; at: string }) =>
      answer(
        api.POST('/api/probes/{probe}/checks', {
          params: { path: { probe: probe.id } },
          body:
            kind === 'salt'
              ? { kind, shown: typedNumber(shown) / 100, at: fromInputMoment(at) }
              : {
                  kind,
                  shown: typedTemperature(shown, unit),
                  reference_c: typedTemperature(reference, unit),
                  at: fromInputMoment(at),
                },
        }),
      ),
    (act) => act,
    (problem) => form.setError('shown', { message: problem.detail }),
  )
  const degrees = (text: string) =>
    !Number.isNaN(typedTemperature(text, unit)) || 'A temperature, like 31.5 or 88.7F.'
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={3}
        maxWidth="34rem"
        onSubmit={form.handleSubmit((said) => check.mutate(said, { onSuccess: onDone }))}
      >
        <Choices<Kind>
          legend="Checked how?"
          hideLegend
          columns={2}
          value={kind}
          onChoose={setKind}
          choices={[
            { value: 'reference', label: 'Beside a reference', note: 'temperature' },
            { value: 'salt', label: 'Salt test', note: 'humidity' },
          ]}
        />
        <Box mt={4}>
          {kind === 'reference' ? (
            <>
              <TextField
                name="shown"
                label={`The probe shows, °${unit}`}
                inputMode="decimal"
                required
                check={degrees}
              />
              <TextField
                name="reference"
                label={`The reference shows, °${unit}`}
                inputMode="decimal"
                required
                check={degrees}
                help="Both at one place, 20 minutes side by side."
              />
            </>
          ) : (
            <TextField
              name="shown"
              label="The probe shows, % humidity"
              inputMode="decimal"
              required
              check={(text) => !Number.isNaN(typedNumber(text)) || 'Per cent, like 74.'}
              help={
                salt === undefined
                  ? undefined
                  : `Table salt, damp but not afloat, with the probe in a closed bag for 12 hours at ${temperatureRange(25, 35, unit)}: the air is at ${(salt * 100).toFixed(1)} %.`
              }
            />
          )}
          <TextField name="at" label="When" type="datetime-local" required />
        </Box>
        <Button type="submit" disabled={check.isPending}>
          Record the check
        </Button>
      </chakra.form>
    </FormProvider>
  )
}
