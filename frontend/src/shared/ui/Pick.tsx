import { chakra } from '@chakra-ui/react'

/** One of many, without a form around it. */
export function Pick({
  label,
  options,
  value,
  onPick,
}: {
  label: string
  options: { value: string; label: string }[]
  value: string | undefined
  onPick: (value: string) => void
}) {
  return (
    <chakra.select
      aria-label={label}
      value={value}
      onChange={(event) => onPick(event.target.value)}
      minHeight="thumb"
      maxWidth="11.875rem"
      px={3}
      bg="sheet"
      border="1.5px solid"
      borderColor="soft"
      borderRadius="small"
    >
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </chakra.select>
  )
}
