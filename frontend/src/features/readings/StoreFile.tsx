import { chakra } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct, useRules } from '@/shared/api/queries'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import type { FileChoices } from '@/shared/logger-file/Questions'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { difference, useTemperatureUnit } from '@/shared/units'
import { fileBody } from './fileBody'
import type { Place } from './places'

export type Stored = { intake: Schemas['IntakeResponse']; probe: string }

const NEW = 'new'

type Values = { probe: string; name: string; place: string; since: string; checked: string }

/** Says which probe wrote the file, a known one or a new one at its place, and stores it. */
export function StoreFile({
  file,
  told,
  choices,
  places,
  probes,
  onStored,
}: {
  file: File
  told: Schemas['ReadFileResponse']
  choices: FileChoices
  places: Place[]
  probes: Schemas['HungProbeResponse'][]
  onStored: (stored: Stored) => void
}) {
  const unit = useTemperatureUnit()
  const rules = useRules().data?.climate
  const allowed = (sdC: number | undefined) =>
    sdC === undefined ? '' : `: forecasts allow ±${difference(sdC, unit)}`
  const loggers = probes.filter((probe) => !probe.by_hand)
  const form = useForm<Values>({
    defaultValues: {
      probe: loggers.length ? '' : NEW,
      name: '',
      place: places[0]?.value ?? '',
      since: told.first ? inputMoment(told.first.at) : '',
      checked: 'no',
    },
  })
  const probe = form.watch('probe')
  const store = useAct(
    async (values: Values) => {
      const { id, name } = values.probe === NEW ? await hang(values) : known(values.probe)
      const answered = await answer(
        api.POST('/api/readings/files', {
          params: { query: { ...choices, probe: id, file_name: file.name } },
          ...fileBody(file),
        }),
      )
      return { intake: answered.intake, probe: name }
    },
    (stored) => stored.intake.act,
    (problem) => {
      const name = problem.status === 409 || problem.fields[0]?.field === 'probe' ? 'name' : 'probe'
      form.setError(probe === NEW ? name : 'probe', { message: problem.detail })
    },
  )

  const hang = (values: Values) =>
    answer(
      api.POST('/api/probes', {
        body: {
          name: values.name,
          place: places.find((p) => p.value === values.place)?.asked ?? {},
          since: fromInputMoment(values.since),
          checked: values.checked === 'yes',
        },
      }),
    ).then((hung) => {
      // LocationHistory chosen, should the file itself be refused: a probe is hung once.
      form.setValue('probe', String(hung.id))
      return hung
    })

  const known = (id: string) => {
    const held = loggers.find((p) => String(p.id) === id)
    return { id: Number(id), name: held?.name ?? '' }
  }

  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={6}
        maxWidth="34rem"
        onSubmit={form.handleSubmit((values) => store.mutate(values, { onSuccess: onStored }))}
      >
        <SelectField
          name="probe"
          label="Which probe wrote it"
          required
          options={[
            { value: '', label: 'choose' },
            ...loggers.map((p) => ({ value: String(p.id), label: `${p.name} (${p.place})` })),
            { value: NEW, label: 'a new probe' },
          ]}
        />
        {probe === NEW && (
          <>
            <TextField name="name" label="Its name" required help="As written on the logger." />
            <SelectField name="place" label="Where it hangs" options={places} />
            <TextField name="since" label="Since" type="datetime-local" required />
            <SelectField
              name="checked"
              label="Checked against a reference thermometer"
              options={[
                { value: 'no', label: `no${allowed(rules?.unchecked_probe_sd_c)}` },
                { value: 'yes', label: `yes${allowed(rules?.checked_probe_sd_c)}` },
              ]}
            />
          </>
        )}
        <Button type="submit" variant="act" disabled={store.isPending}>
          Store {told.rows.toLocaleString('en')} readings
        </Button>
      </chakra.form>
    </FormProvider>
  )
}
