import { chakra, Grid, Text } from '@chakra-ui/react'
import { useFieldArray, useFormContext } from 'react-hook-form'
import type { Schemas } from '@/shared/api/client'
import { ONE_COLUMN } from '@/shared/theme/tight'
import { Button } from './Button'
import { SelectField, TextField } from './fields'

export type TraitValue = { name: string; form: Schemas['TraitForm'] }

const FORMS = [
  { value: 'visual', label: 'visual' },
  { value: 'two copies', label: 'two copies' },
  { value: 'one copy', label: 'one copy' },
  { value: 'possible', label: 'possible' },
]

/** Traits of the form around it, each with the form it shows in; refusals stand below them. */
export function TraitFields() {
  const form = useFormContext<{ traits: TraitValue[] }>()
  const traits = useFieldArray({ control: form.control, name: 'traits' })
  const refusal = form.formState.errors.root?.traits?.message
  return (
    <chakra.fieldset mb={4}>
      <chakra.legend fontWeight="semibold" mb={2}>
        Traits
      </chakra.legend>
      {traits.fields.map((field, i) => (
        <Grid
          key={field.id}
          templateColumns="1fr 8.75rem auto"
          css={ONE_COLUMN}
          gap={3}
          alignItems="start"
        >
          <TextField name={`traits.${i}.name`} label={`Trait ${i + 1}`} required />
          <SelectField name={`traits.${i}.form`} label="Form" options={FORMS} />
          <Button
            type="button"
            variant="bare"
            mt="1.625rem"
            aria-label={`Take trait ${i + 1} away`}
            onClick={() => traits.remove(i)}
          >
            ×
          </Button>
        </Grid>
      ))}
      {refusal && (
        <Text role="alert" color="vessel" fontWeight="semibold" mb={2}>
          {refusal}
        </Text>
      )}
      <Button
        type="button"
        size="small"
        onClick={() => traits.append({ name: '', form: 'visual' })}
      >
        Add a trait
      </Button>
    </chakra.fieldset>
  )
}
