import { Box, chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'

type Values = { what: string }

/** Something was changed about the cabinet itself: vapours can take a batch weeks later. */
export function AlteredForm({ cabinet }: { cabinet: string }) {
  const [writing, setWriting] = useState(false)
  const form = useForm<Values>({ defaultValues: { what: '' } })
  const alter = useAct(
    ({ what }: Values) =>
      answer(
        api.POST('/api/cabinets/{name}/alterations', {
          params: { path: { name: cabinet } },
          body: { what, at: takeMoment() },
        }),
      ),
    (act) => act,
    (problem) => isOfMoment(problem) || form.setError('what', { message: problem.detail }),
  )
  if (!writing) {
    return (
      <Button type="button" size="small" mt={4} onClick={() => setWriting(true)}>
        Cabinet modified
      </Button>
    )
  }
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={5}
        aria-label="Cabinet altered"
        onSubmit={form.handleSubmit((said) =>
          alter.mutate(said, {
            onSuccess: () => {
              form.reset()
              setWriting(false)
            },
          }),
        )}
      >
        <TextField
          name="what"
          label="What was altered"
          placeholder="sealed with silicone"
          required
          help="Drilled foam, glue, paint: vapours can take a batch weeks later. Losses look for it."
        />
        <Box mb={3}>
          <When label="Done" problem={alter.error} />
        </Box>
        <Button type="submit" disabled={alter.isPending}>
          Record it
        </Button>
      </chakra.form>
    </FormProvider>
  )
}
