import { Field, Input } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { typedGrams } from '@/shared/units'

/** The egg's weight, if it is weighed; taken as soon as it is a number. */
export function EggMass({
  number,
  mass,
  onMass,
  usual,
}: {
  number: number
  mass: number | null
  onMass: (mass: number | null) => void
  usual?: number[] | undefined
}) {
  const form = useForm({ mode: 'onChange', defaultValues: { mass: mass?.toString() ?? '' } })
  const error = form.formState.errors.mass?.message
  const typed = typedGrams(form.watch('mass'))
  const [low = 0, high = Number.POSITIVE_INFINITY] = usual ?? []
  const unusual = typed < low || typed > high
  return (
    <Field.Root invalid={!!error}>
      <Field.Label>Weight of egg {number}, g (optional)</Field.Label>
      <Input
        inputMode="decimal"
        autoComplete="off"
        maxWidth="10rem"
        {...form.register('mass', {
          validate: (text) =>
            !text.trim() ||
            (typedGrams(text) >= 10 && typedGrams(text) <= 250) ||
            'An egg weighs 10 to 250 g.',
          onBlur: async () => {
            if (!(await form.trigger('mass'))) return
            const text = form.getValues('mass')
            const next = text.trim() ? typedGrams(text) : null
            if (next !== mass) onMass(next)
          },
        })}
      />
      {error ? (
        <Field.ErrorText>{error}</Field.ErrorText>
      ) : (
        typed > 0 &&
        unusual && (
          <Field.HelperText>
            Usual is {low} to {high} g.
          </Field.HelperText>
        )
      )}
    </Field.Root>
  )
}
