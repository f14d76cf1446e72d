import { Box, chakra, Flex } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { typedGrams } from '@/shared/units'
import type { Hatchling } from './queries'

type Values = { prey: string; mass: string }

/** A meal offered to a hatchling, or its weight. */
export function FollowForm({
  hatchling,
  what,
  onDone,
}: {
  hatchling: Hatchling
  what: 'meal' | 'weight'
  onDone: () => void
}) {
  const form = useForm<Values>({ defaultValues: { prey: '', mass: '' } })
  const path = { hatchling: hatchling.id }
  const record = useAct(
    ({ mass, prey, taken }: Values & { taken: boolean }) => {
      const when = takeMoment()
      return what === 'weight'
        ? answer(
            api.POST('/api/hatchlings/{hatchling}/weights', {
              params: { path },
              body: { mass_g: typedGrams(mass), at: when },
            }),
          )
        : answer(
            api.POST('/api/hatchlings/{hatchling}/meals', {
              params: { path },
              body: { taken, prey, mass_g: mass.trim() ? typedGrams(mass) : null, at: when },
            }),
          )
    },
    (act) => act,
    (problem) => {
      const field = problem.fields[0]?.field === 'prey' ? 'prey' : 'mass'
      if (!isOfMoment(problem)) form.setError(field, { message: problem.detail })
    },
  )
  const send = (taken: boolean) =>
    form.handleSubmit((values) => record.mutate({ ...values, taken }, { onSuccess: onDone }))
  return (
    <FormProvider {...form}>
      <chakra.form noValidate onSubmit={send(true)} mt={3} maxWidth="35rem">
        {what === 'meal' && <TextField name="prey" label="Prey" placeholder="rat pup" />}
        <TextField
          name="mass"
          label={what === 'meal' ? 'Its weight, g' : 'Weight, g'}
          inputMode="decimal"
          required={what === 'weight'}
          check={(text) => !text.trim() || typedGrams(text) > 0 || 'Grams as a number, like 60.'}
        />
        <Box mb={3}>
          <When label={what === 'meal' ? 'Offered' : 'Weighed'} problem={record.error} />
        </Box>
        <Flex gap={3}>
          <Button type="submit" disabled={record.isPending}>
            {what === 'meal' ? 'Taken' : 'Record weight'}
          </Button>
          {what === 'meal' && (
            <Button type="button" disabled={record.isPending} onClick={send(false)}>
              Refused
            </Button>
          )}
        </Flex>
      </chakra.form>
    </FormProvider>
  )
}
