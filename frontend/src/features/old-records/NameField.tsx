import { Field, Input } from '@chakra-ui/react'
import { type KeyboardEvent, type Ref, useLayoutEffect, useRef } from 'react'

/** A name that completes itself while it is typed: the rest stands selected, and typing on
    replaces it. */
export function NameField({
  label,
  value,
  complete,
  offered = '',
  problem,
  inputRef,
  onName,
  onKeyDown,
}: {
  label: string
  value: string
  complete: (typed: string) => string
  /** What stands there, selected, when the field is come to empty. */
  offered?: string
  problem?: string | undefined
  inputRef: (input: HTMLInputElement | null) => void
  onName: (name: string) => void
  onKeyDown: (event: KeyboardEvent) => void
}) {
  const input = useRef<HTMLInputElement>(null)
  const selected = useRef<[number, number] | null>(null)
  useLayoutEffect(() => {
    if (selected.current) input.current?.setSelectionRange(...selected.current)
    selected.current = null
  })
  const type = (typed: string, erased: boolean) => {
    const whole = erased ? '' : complete(typed)
    if (whole.length > typed.length) selected.current = [typed.length, whole.length]
    onName(whole ? typed + whole.slice(typed.length) : typed)
  }
  const offer = () => {
    if (value || !offered) return
    selected.current = [0, offered.length]
    onName(offered)
  }
  return (
    <Field.Root invalid={!!problem}>
      <Field.Label>{label}</Field.Label>
      <Input
        ref={both(input, inputRef)}
        value={value}
        autoComplete="off"
        autoCapitalize="words"
        aria-autocomplete="inline"
        spellCheck={false}
        onFocus={offer}
        onChange={(event) => {
          const { inputType } = event.nativeEvent as InputEvent
          type(event.target.value, inputType?.startsWith('delete') ?? false)
        }}
        onKeyDown={onKeyDown}
      />
      {problem && <Field.ErrorText>{problem}</Field.ErrorText>}
    </Field.Root>
  )
}

function both<T>(own: { current: T | null }, theirs: (node: T | null) => void): Ref<T> {
  return (node) => {
    own.current = node
    theirs(node)
  }
}
