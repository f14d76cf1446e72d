import { Box, chakra, Flex, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { Waiting } from '@/shared/ui/page'
import {
  degrees,
  type TemperatureUnit,
  typedGrams,
  typedNumber,
  typedTemperature,
  useTemperatureUnit,
} from '@/shared/units'
import { dependentsQuery } from './dependents'

type Field = Schemas['FieldResponse']
type Body = Schemas['RecordRequest']

/** What a line of the log recorded, to be put right at its fields. */
export function CorrectRecord({ act, onDone }: { act: number; onDone: () => void }) {
  const record = useQuery({
    queryKey: ['record', act],
    queryFn: () =>
      answer(api.GET('/api/acts/{act_id}/record', { params: { path: { act_id: act } } })),
    // What is typed stands on the version that was opened.
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  })
  const resting = useQuery(dependentsQuery(act))
  if (!record.data || !resting.data) {
    return <Waiting problem={record.error?.message ?? resting.error?.message} />
  }
  return <Form act={act} record={record.data} resting={resting.data} onDone={onDone} />
}

function Form({
  act,
  record,
  resting,
  onDone,
}: {
  act: number
  record: Schemas['RecordResponse']
  resting: string[]
  onDone: () => void
}) {
  const unit = useTemperatureUnit()
  const [opened] = useState(() =>
    Object.fromEntries(record.fields.map((field) => [field.name, asTyped(field, unit)])),
  )
  const form = useForm<Record<string, string>>({ defaultValues: opened })
  const body = (typed: Record<string, string>): Body => ({
    fields: record.fields.map((field) => asAsked(field, typed[field.name] ?? '', unit)),
  })
  const correction = useCorrection({
    revision: record.revision,
    opened: body(opened),
    send: (asked: Body, header) =>
      answer(
        api.PUT('/api/acts/{act_id}/record', {
          params: { path: { act_id: act }, header },
          body: asked,
        }),
      ),
    actOf: (told) => told,
    onDone,
  })
  const first = record.fields[0]?.name ?? ''
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label="Correct what was recorded"
        width="100%"
        maxWidth="30rem"
        py={3}
        onSubmit={form.handleSubmit((typed) =>
          correction.save(body(typed), (problem) => {
            const named = problem.fields[0]?.field ?? ''
            form.setError(named in opened ? named : first, { message: problem.detail })
          }),
        )}
      >
        {resting.length > 0 && (
          <Text fontWeight="semibold" mb={3}>
            {resting.map(sentence).join(' ')}
          </Text>
        )}
        {record.fields.map((field) => (
          <OneField key={field.name} field={field} unit={unit} />
        ))}
        <Flex gap={3}>
          <Button type="submit" variant="act" disabled={correction.pending}>
            Record the correction
          </Button>
          <Button type="button" variant="bare" onClick={onDone}>
            Leave it
          </Button>
        </Flex>
        <Box>
          <BothVersions correction={correction} />
        </Box>
      </chakra.form>
    </FormProvider>
  )
}

function OneField({ field, unit }: { field: Field; unit: TemperatureUnit }) {
  const { name, label, required } = field
  switch (field.kind) {
    case 'choice':
      return <SelectField name={name} label={label} options={field.choices} required={required} />
    case 'moment':
      return <TextField name={name} label={label} type="datetime-local" required={required} />
    case 'grams':
      return (
        <TextField
          name={name}
          label={label}
          inputMode="decimal"
          required={required}
          check={(text) =>
            !text.trim() || !Number.isNaN(typedGrams(text)) || 'Grams as a number, like 45.'
          }
        />
      )
    case 'percent':
      return (
        <TextField
          name={name}
          label={label}
          inputMode="decimal"
          required={required}
          check={(text) => !Number.isNaN(typedNumber(text)) || 'Percent as a number, like 75.3.'}
        />
      )
    case 'words':
      return <TextField name={name} label={label} required={required} lines={5} plain />
    case 'celsius':
      return (
        <TextField
          name={name}
          label={`${label}, °${unit}`}
          inputMode="decimal"
          required={required}
          check={(text) =>
            !Number.isNaN(typedTemperature(text, unit)) || 'A temperature, like 31.5 or 88.7F.'
          }
        />
      )
    default:
      return <TextField name={name} label={label} required={required} />
  }
}

/** A field as it is typed: in the keeper's zone and degrees. */
function asTyped(field: Field, unit: TemperatureUnit): string {
  if (field.moment) return inputMoment(field.moment)
  if (field.kind === 'celsius' && field.number != null) return String(degrees(field.number, unit))
  return field.text ?? (field.number == null ? '' : String(field.number))
}

function asAsked(field: Field, typed: string, unit: TemperatureUnit): Body['fields'][number] {
  const { name } = field
  if (field.kind === 'moment' && !typed) return { name, moment: null }
  // A minute that was not touched keeps its seconds.
  if (field.kind === 'moment') {
    const same = field.moment && inputMoment(field.moment) === typed
    return { name, moment: same ? (field.moment ?? null) : fromInputMoment(typed) }
  }
  if (field.kind === 'percent') return { name, number: typedNumber(typed) }
  if (field.kind === 'grams') return { name, number: typed.trim() ? typedGrams(typed) : null }
  if (field.kind === 'celsius') return { name, number: typedTemperature(typed, unit) }
  return { name, text: typed }
}
