import { Box, chakra, Grid } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import type { Problem, Schemas } from '@/shared/api/client'
import { useAnimals } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { Choices } from '@/shared/ui/Choices'
import { SelectField, TextField } from '@/shared/ui/fields'
import { TickField } from '@/shared/ui/TickField'
import { TraitFields, type TraitValue } from '@/shared/ui/TraitFields'
import { typedNumber } from '@/shared/units'

export type AnimalValues = {
  role: 'dam' | 'sire'
  name: string
  code: string
  hatchYear: string
  traitsText: string
  traits: TraitValue[]
  dam: string
  sire: string
  retired: boolean
}

/** An animal as its keeper describes it; what the house refuses is said at its field. */
export function AnimalForm({
  start,
  own,
  submitLabel,
  pending,
  onSubmit,
}: {
  start: AnimalValues
  /** Id of the animal being corrected. */
  own?: number
  submitLabel: string
  pending: boolean
  onSubmit: (body: Schemas['AnimalRequest'], refuse: (problem: Problem) => void) => void
}) {
  const animals = useAnimals()
  const form = useForm<AnimalValues>({ defaultValues: start })
  const parents = (role: string) => [
    { value: '', label: 'not known' },
    ...(animals.data ?? [])
      .filter((a) => a.role === role && a.id !== own)
      .map((a) => ({ value: String(a.id), label: a.name })),
  ]
  const refuse = (problem: Problem) => {
    const names: Record<string, keyof AnimalValues> = {
      name: 'name',
      code: 'code',
      hatch_year: 'hatchYear',
      traits_text: 'traitsText',
      traits: 'traits',
      dam: 'dam',
      sire: 'sire',
    }
    const at = names[problem.fields[0]?.field.split('.')[0] ?? ''] ?? 'name'
    form.setError(at === 'traits' ? 'root.traits' : at, { message: problem.detail })
  }
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        maxWidth="40rem"
        mt={6}
        onSubmit={form.handleSubmit((values) => onSubmit(requestOf(values), refuse))}
      >
        <Box mb={4}>
          <Choices
            legend="Role"
            columns={2}
            choices={[
              { value: 'dam', label: 'Dam' },
              { value: 'sire', label: 'Sire' },
            ]}
            value={form.watch('role')}
            onChoose={(role) => form.setValue('role', role)}
          />
        </Box>
        <TextField name="name" label="Name" required />
        <Grid templateColumns="1fr 1fr" gap={4}>
          <TextField name="code" label="Code, if it has one" />
          <TextField
            name="hatchYear"
            label="Hatched in"
            inputMode="numeric"
            check={(text) =>
              !text.trim() || /^\d{4}$/.test(text.trim()) || 'A year, like 2019, or empty.'
            }
          />
        </Grid>
        <TraitFields />
        <TextField name="traitsText" label="In your own words" />
        <Grid templateColumns="1fr 1fr" gap={4}>
          <SelectField name="dam" label="Its dam" options={parents('dam')} />
          <SelectField name="sire" label="Its sire" options={parents('sire')} />
        </Grid>
        <TickField name="retired" label="Retired from breeding" mb={4} />
        <Button type="submit" variant="act" disabled={pending}>
          {submitLabel}
        </Button>
      </chakra.form>
    </FormProvider>
  )
}

export function requestOf(values: AnimalValues): Schemas['AnimalRequest'] {
  return {
    role: values.role,
    name: values.name,
    code: values.code.trim() || null,
    hatch_year: values.hatchYear.trim() ? typedNumber(values.hatchYear) : null,
    traits_text: values.traitsText,
    traits: values.traits,
    dam: values.dam ? Number(values.dam) : null,
    sire: values.sire ? Number(values.sire) : null,
    retired: values.retired,
  }
}
