import { chakra } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { placesOf } from '@/features/readings/places'
import { answer, api, type Schemas } from '@/shared/api/client'
import { devicesQuery, useAct, useChoices, useToday } from '@/shared/api/queries'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { HangsIn } from './HangsIn'

/** Adds a probe: its place, since when, and the device that sends for it. */
export function NewProbe({ cabinet }: { cabinet: Schemas['CabinetResponse'] }) {
  const [open, setOpen] = useState(false)
  if (!open) {
    return (
      <Button type="button" onClick={() => setOpen(true)}>
        Add a probe
      </Button>
    )
  }
  return <NewProbeForm cabinet={cabinet} onDone={() => setOpen(false)} />
}

function NewProbeForm({
  cabinet,
  onDone,
}: {
  cabinet: Schemas['CabinetResponse']
  onDone: () => void
}) {
  const choices = useChoices()
  const today = useToday()
  const devices = useQuery(devicesQuery)
  const form = useForm({
    defaultValues: { name: '', place: '', device: '', at: inputMoment(cabinet.as_of) },
  })
  const places = choices.data && today.data ? placesOf(choices.data, today.data, null) : []
  const own = places.filter((place) => place.asked.cabinet === cabinet.name || place.asked.box)
  const hang = useAct(
    (said: { name: string; place: string; device: string; at: string }) =>
      answer(
        api.POST('/api/probes', {
          body: {
            name: said.name,
            place: places.find((p) => p.value === said.place)?.asked ?? {},
            since: fromInputMoment(said.at),
            checked: false,
            device: said.device ? Number(said.device) : null,
          },
        }),
      ),
    (probe) => probe.act,
    (problem) => {
      const field = problem.fields[0]?.field
      form.setError(field === 'since' ? 'at' : 'name', { message: problem.detail })
    },
  )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        maxWidth="34rem"
        mt={4}
        onSubmit={form.handleSubmit((said) => hang.mutate(said, { onSuccess: onDone }))}
      >
        <TextField name="name" label="Name of the probe" required />
        <HangsIn places={own} />
        <SelectField
          name="device"
          label="Sent by"
          options={[
            { value: '', label: 'nothing: its readings come as files' },
            ...(devices.data ?? []).map((d) => ({ value: String(d.id), label: d.name })),
          ]}
        />
        <TextField name="at" label="Since" type="datetime-local" required />
        <Button type="submit" disabled={hang.isPending}>
          Add it
        </Button>
      </chakra.form>
    </FormProvider>
  )
}
