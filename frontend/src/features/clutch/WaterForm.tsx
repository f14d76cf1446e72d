import { chakra, Field, Flex, Input } from '@chakra-ui/react'
import { useForm } from 'react-hook-form'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { typedGrams } from '@/shared/units'

/** Records water added to the box. */
export function WaterForm({ box }: { box: string }) {
  const form = useForm({ defaultValues: { grams: '' } })
  const water = useAct(
    (water_g: number) =>
      answer(
        api.POST('/api/boxes/{name}/waterings', {
          params: { path: { name: box } },
          body: { water_g, at: takeMoment() },
        }),
      ),
    (act) => act,
    (problem) => isOfMoment(problem) || form.setError('grams', { message: problem.detail }),
  )
  const { errors } = form.formState
  return (
    <chakra.form
      mt={4}
      noValidate
      onSubmit={form.handleSubmit(({ grams }) =>
        water.mutate(typedGrams(grams), { onSuccess: () => form.reset() }),
      )}
    >
      <Field.Root invalid={!!errors.grams}>
        <Field.Label>Water added, g (= ml)</Field.Label>
        <Flex gap={2}>
          <Input
            inputMode="decimal"
            maxWidth="8.125rem"
            {...form.register('grams', {
              validate: (text) => !Number.isNaN(typedGrams(text)) || 'Grams as a number, like 45.',
            })}
          />
          <Button type="submit" variant="act" disabled={water.isPending}>
            Record
          </Button>
        </Flex>
        <When label="Poured" problem={water.error} />
        <Field.ErrorText>{errors.grams?.message}</Field.ErrorText>
        <Field.HelperText>
          At the box's temperature, along the side, never on eggs.
        </Field.HelperText>
      </Field.Root>
    </chakra.form>
  )
}
