import { Field, Input } from '@chakra-ui/react'

/** A field whose words narrow the list below it as they are typed. */
export function SearchField({
  label,
  examples,
  sought,
  onSought,
}: {
  label: string
  /** Words that find something. */
  examples: string
  sought: string
  onSought: (sought: string) => void
}) {
  return (
    <Field.Root maxWidth="28rem">
      <Field.Label>{label}</Field.Label>
      <Input
        type="search"
        value={sought}
        placeholder={examples}
        onChange={(event) => onSought(event.target.value)}
      />
    </Field.Root>
  )
}
