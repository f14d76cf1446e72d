import { chakra, Flex, Grid } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { fromInputMoment } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { typedGrams } from '@/shared/units'
import type { Hatchling } from './queries'

type Values = { prey: string; mass: string; at: string }

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
  const form = useForm<Values>({ defaultValues: { prey: '', mass: '', at: '' } })
  const path = { hatchling: hatchling.id }
  const record = useAct(
    ({ mass, at, prey, taken }: Values & { taken: boolean }) => {
      const when = at ? fromInputMoment(at) : null
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
      const fields: Record<string, keyof Values> = { at: 'at', prey: 'prey' }
      form.setError(fields[problem.fields[0]?.field ?? ''] ?? 'mass', { message: problem.detail })
    },
  )
  const send = (taken: boolean) =>
    form.handleSubmit((values) => record.mutate({ ...values, taken }, { onSuccess: onDone }))
  return (
    <FormProvider {...form}>
      <chakra.form noValidate onSubmit={send(true)} mt={3} maxWidth="35rem">
        {what === 'meal' && <TextField name="prey" label="Prey" placeholder="rat pup" />}
        <Grid templateColumns="1fr 1fr" columnGap={4}>
          <TextField
            name="mass"
            label={what === 'meal' ? 'Its weight, g' : 'Weight, g'}
            inputMode="decimal"
            required={what === 'weight'}
            check={(text) => !text.trim() || typedGrams(text) > 0 || 'Grams as a number, like 60.'}
          />
          <TextField name="at" label="When, if not now" type="datetime-local" />
        </Grid>
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
