import { chakra, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useChoices } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { Choices } from '@/shared/ui/Choices'
import { FormEnd } from '@/shared/ui/FormEnd'
import { SelectField, TextField } from '@/shared/ui/fields'
import { Waiting } from '@/shared/ui/page'
import { typedGrams } from '@/shared/units'

type Box = Schemas['BoxResponse']
type Body = Schemas['BoxRequest']
type Contact = Schemas['Contact']

type Values = {
  name: string
  medium: string
  closing: string
  contact: Contact | null
  dryMass: string
  water: string
  setUpMass: string
}

const CONTACTS: { value: Contact; label: string }[] = [
  { value: 'bedded in a hollow', label: 'Bedded in a hollow' },
  { value: 'on a grid', label: 'On a grid' },
]

/** How a box was set up, to be corrected: its name, medium, grid and grams. */
export function BoxForm({ box, onDone }: { box: Box; onDone: () => void }) {
  const choices = useChoices()
  if (!choices.data) return <Waiting problem={choices.error?.message} />
  return <Form box={box} choices={choices.data} onDone={onDone} />
}

function Form({
  box,
  choices,
  onDone,
}: {
  box: Box
  choices: Schemas['ChoicesResponse']
  onDone: () => void
}) {
  const [start] = useState(() => valuesOf(box))
  const form = useForm<Values>({ defaultValues: start })
  const correction = useCorrection({
    revision: box.revision,
    opened: bodyOf(start, box.kind),
    send: (body: Body, header) =>
      answer(api.PUT('/api/boxes/{name}', { params: { path: { name: box.name }, header }, body })),
    actOf: (act) => act,
    onDone,
  })
  const refuse = (problem: Problem) =>
    form.setError(FIELDS[problem.fields[0]?.field ?? ''] ?? 'name', { message: problem.detail })
  const hatching = box.kind === 'hatching'
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label={`Edit box ${box.name}`}
        mt={4}
        onSubmit={form.handleSubmit((values) => correction.save(bodyOf(values, box.kind), refuse))}
      >
        <TextField name="name" label="Its name" required />
        {!hatching && (
          <>
            <Grid templateColumns="1fr 1fr" columnGap={4}>
              <SelectField
                name="medium"
                label="Medium"
                options={choices.media.map((medium) => medium.name)}
              />
              <SelectField name="closing" label="Closing" options={choices.closings} />
            </Grid>
            <Choices<Contact>
              legend="The eggs lie"
              columns={2}
              choices={CONTACTS}
              value={form.watch('contact')}
              onChoose={(contact) => form.setValue('contact', contact)}
            />
          </>
        )}
        <Grid templateColumns={{ base: '1fr 1fr', md: '1fr 1fr 1fr' }} columnGap={4} mt={4}>
          <TextField name="dryMass" label="Dry medium, g" inputMode="decimal" check={grams} />
          <TextField name="water" label="Water, g" inputMode="decimal" check={grams} />
          <TextField name="setUpMass" label="All of it, g" inputMode="decimal" check={grams} />
        </Grid>
        <FormEnd label="Record the correction" disabled={correction.pending} onLeave={onDone} />
      </chakra.form>
      <BothVersions
        correction={correction}
        labels={{ dry_mass_g: 'Dry medium', water_g: 'Water', set_up_mass_g: 'All of it' }}
      />
    </FormProvider>
  )
}

const FIELDS: Record<string, keyof Values> = {
  name: 'name',
  medium: 'medium',
  closing: 'closing',
  dry_mass_g: 'dryMass',
  water_g: 'water',
  set_up_mass_g: 'setUpMass',
}

function valuesOf(box: Box): Values {
  const text = (grams: number | null) => grams?.toString() ?? ''
  return {
    name: box.name,
    medium: box.medium ?? '',
    closing: box.closing ?? '',
    contact: box.contact,
    dryMass: text(box.dry_mass_g),
    water: text(box.water_g),
    setUpMass: text(box.set_up_mass_g),
  }
}

/** What is left out stays as it is. */
function bodyOf(values: Values, kind: Box['kind']): Body {
  const known = (text: string) => (text.trim() ? typedGrams(text) : null)
  return {
    kind,
    name: values.name,
    medium: values.medium || null,
    closing: (values.closing || null) as Schemas['Closing'] | null,
    contact: values.contact,
    dry_mass_g: known(values.dryMass),
    water_g: known(values.water),
    set_up_mass_g: known(values.setUpMass),
  }
}

function grams(text: string): true | string {
  return !text.trim() || typedGrams(text) >= 0 || 'Grams as a number, or empty.'
}
