import { Flex } from '@chakra-ui/react'
import { useId } from 'react'
import { Pick } from '@/shared/ui/Pick'

/** A choice among few, with what it is of before it. */
export function Options<Value extends string>({
  label,
  options,
  value,
  onChoose,
}: {
  label: string
  options: [Value, string][]
  value: Value | ''
  onChoose: (value: Value) => void
}) {
  const id = useId()
  return (
    <Flex gap={3} align="center" wrap="wrap">
      <strong id={id}>{label}</strong>
      <Pick
        label={label}
        value={value}
        options={[
          ...(value === '' ? [{ value: '', label: 'choose' }] : []),
          ...options.map(([own, said]) => ({ value: own, label: said })),
        ]}
        onPick={(own) => own && onChoose(own as Value)}
      />
    </Flex>
  )
}
