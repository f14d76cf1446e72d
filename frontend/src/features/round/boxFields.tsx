import { Field, Input, NativeSelect, Textarea } from '@chakra-ui/react'

/** Grams as typed, with the refusal underneath. */
export function Grams({
  label,
  value,
  error,
  help,
  signed = false,
  onChange,
}: {
  label: string
  value: string
  error: string | undefined
  help: string
  /** May be less than 0: a phone's number keys often have no minus. */
  signed?: boolean
  onChange: (text: string) => void
}) {
  return (
    <Field.Root invalid={!!error}>
      <Field.Label>{label}</Field.Label>
      <Input
        inputMode={signed ? 'text' : 'decimal'}
        autoComplete="off"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
      {error ? (
        <Field.ErrorText>{error}</Field.ErrorText>
      ) : (
        <Field.HelperText>{help}</Field.HelperText>
      )}
    </Field.Root>
  )
}

/** Plain words, perhaps of several lines. */
export function Words({
  label,
  value,
  onChange,
}: {
  label: string
  value: string
  onChange: (text: string) => void
}) {
  return (
    <Field.Root>
      <Field.Label>{label}</Field.Label>
      <Textarea
        rows={2}
        value={value}
        p={3}
        bg="sheet"
        border="1.5px solid"
        borderColor="soft"
        borderRadius="small"
        onChange={(event) => onChange(event.target.value)}
      />
    </Field.Root>
  )
}

/** One of a few, as a list. */
export function Select({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: { value: string; label: string }[]
  onChange: (value: string) => void
}) {
  return (
    <Field.Root>
      <Field.Label>{label}</Field.Label>
      <NativeSelect.Root>
        <NativeSelect.Field value={value} onChange={(event) => onChange(event.target.value)}>
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
    </Field.Root>
  )
}
