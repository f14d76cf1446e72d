import { chakra } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { placesOf } from '@/features/readings/places'
import { answer, api } from '@/shared/api/client'
import { useAct, useChoices, useToday } from '@/shared/api/queries'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { heldMoment } from '@/shared/moment/moment'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { HangsIn } from './HangsIn'
import type { ProbeFormProps } from './probeForm'

const NOWHERE = 'nowhere'

/** Where a probe hangs from a time on; what it read before stays where it was. */
export function HangForm({ probe, asOf, onDone }: ProbeFormProps) {
  const choices = useChoices()
  const today = useToday()
  const form = useForm({ defaultValues: { place: '', at: inputMoment(heldMoment() ?? asOf) } })
  const places = choices.data && today.data ? placesOf(choices.data, today.data, null) : []
  const hang = useAct(
    ({ place, at }: { place: string; at: string }) =>
      answer(
        api.POST('/api/probes/{probe}/moves', {
          params: { path: { probe: probe.id } },
          body: {
            place: places.find((p) => p.value === place)?.asked ?? null,
            at: fromInputMoment(at),
          },
        }),
      ),
    (act) => act,
    (problem) => form.setError('place', { message: problem.detail }),
  )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={3}
        maxWidth="34rem"
        onSubmit={form.handleSubmit((said) => hang.mutate(said, { onSuccess: onDone }))}
      >
        <HangsIn places={places} nowhere={NOWHERE} />
        <TextField name="at" label="Since" type="datetime-local" required />
        <Button type="submit" disabled={hang.isPending}>
          Record
        </Button>
      </chakra.form>
    </FormProvider>
  )
}
