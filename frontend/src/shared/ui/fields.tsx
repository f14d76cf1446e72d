import { Field, Input, NativeSelect, Textarea } from '@chakra-ui/react'
import { type ComponentProps, useId } from 'react'
import { type FieldErrors, get, type UseFormRegisterReturn, useFormContext } from 'react-hook-form'
import { fullMoment, inputMoment } from '@/shared/dates'
import { Button } from './Button'

type Text = {
  name: string
  label: string
  required?: boolean
  /** Whether it still belongs to the form: one that was shown and is not any more asks nothing. */
  asked?: () => boolean
  help?: string | undefined
  /** Names offered while typing; others may be typed. */
  offers?: string[]
  /** Lines of a text of more than one; `plain` words, or columns that stand under each other. */
  lines?: number
  plain?: boolean
  check?: (text: string) => true | string
  onTyped?: (text: string) => void
  onChosen?: (text: string) => void
} & Pick<ComponentProps<typeof Input>, 'type' | 'inputMode' | 'placeholder' | 'autoComplete'>

/** A text field of the form around it, with its refusal underneath. */
export function TextField({
  name,
  label,
  required = false,
  asked,
  help,
  offers,
  lines,
  plain,
  check,
  onTyped,
  onChosen,
  ...input
}: Text) {
  const form = useFormContext()
  const list = useId()
  const error = errorOf(form.formState.errors, name)
  // Browsers write 03/04 their own way; the line below says which day that is.
  const isMoment = input.type === 'datetime-local'
  const typed: string | undefined = isMoment ? form.watch(name) : undefined
  const moment = typed && inFull(typed)
  const control = useId()
  const field = form.register(name, {
    validate: (text: string) => {
      if (asked && !asked()) return true
      if (required && !String(text).trim())
        return `${label.split(',')[0]?.split(':')[0]}: fill this in.`
      return check?.(text) ?? true
    },
  })
  return (
    <Field.Root invalid={!!error} required={required} mb={4} id={control}>
      <Field.Label>{label}</Field.Label>
      {isMoment && !typed ? (
        <SetMoment id={control} onSet={(now) => form.setValue(name, now)} />
      ) : lines ? (
        <Lines field={field} rows={lines} plain={plain} />
      ) : (
        <Input
          autoComplete="off"
          {...input}
          {...field}
          list={offers?.length ? list : undefined}
          onChange={(event) => {
            field.onChange(event)
            onTyped?.(event.target.value)
            onChosen?.(event.target.value)
          }}
        />
      )}
      {offers && offers.length > 0 && (
        <datalist id={list}>
          {offers.map((offer) => (
            <option key={offer} value={offer} />
          ))}
        </datalist>
      )}
      {error ? (
        <Field.ErrorText>{error}</Field.ErrorText>
      ) : (
        (help || moment) && <Field.HelperText>{help ?? moment}</Field.HelperText>
      )}
    </Field.Root>
  )
}

/** A text of several lines: plain words, or columns that stand under each other. */
function Lines({
  field,
  rows,
  plain = false,
}: {
  field: UseFormRegisterReturn
  rows: number
  plain: boolean | undefined
}) {
  return (
    <Textarea
      {...field}
      rows={rows}
      fontFamily={plain ? 'inherit' : 'monospace'}
      p={3}
      bg="sheet"
      border="1.5px solid"
      borderColor="soft"
      borderRadius="small"
    />
  )
}

/** An empty field of a browser writes mm/dd or dd/mm: until a time is set there is none. */
export function SetMoment({ id, onSet }: { id: string; onSet: (now: string) => void }) {
  return (
    <Button
      id={id}
      type="button"
      width="100%"
      justifyContent="flex-start"
      fontWeight="medium"
      onClick={() => {
        onSet(inputMoment(new Date()))
        // The field comes in its place, and is what is typed into next.
        requestAnimationFrame(() => document.getElementById(id)?.focus())
      }}
    >
      not set: tap to set
    </Button>
  )
}

function inFull(text: string): string | undefined {
  return text && !Number.isNaN(Date.parse(text)) ? fullMoment(text) : undefined
}

/** The refusal at a field, if there is one. */
function errorOf(errors: FieldErrors, name: string): string | undefined {
  const error = get(errors, name) as { message?: string } | undefined
  return error && (error.message ?? 'Not right yet.')
}

export type Option = string | { value: string; label: string }

/** A choice of the form around it. */
export function SelectField({
  name,
  label,
  options,
  required = false,
  help,
  onChoose,
}: {
  name: string
  label: string
  options: Option[]
  required?: boolean
  help?: string | undefined
  /** What else changes with it. */
  onChoose?: (value: string) => void
}) {
  const form = useFormContext()
  const error = errorOf(form.formState.errors, name)
  return (
    <Field.Root invalid={!!error} mb={4}>
      <Field.Label>{label}</Field.Label>
      <NativeSelect.Root>
        <NativeSelect.Field
          {...form.register(name, {
            validate: (value: string) => !required || !!value || `${label}: choose one.`,
            onChange: (event: { target: { value: string } }) => onChoose?.(event.target.value),
          })}
        >
          {options.map((option) => {
            const { value, label: shown } =
              typeof option === 'string' ? { value: option, label: option } : option
            return (
              <option key={value} value={value}>
                {shown}
              </option>
            )
          })}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
      {error && <Field.ErrorText>{error}</Field.ErrorText>}
      {!error && help && <Field.HelperText>{help}</Field.HelperText>}
    </Field.Root>
  )
}
