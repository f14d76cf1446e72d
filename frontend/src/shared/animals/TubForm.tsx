import { Box, chakra } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { FormEnd } from '@/shared/ui/FormEnd'
import { TextField } from '@/shared/ui/fields'
import type { Individual } from './individual'

/** The tub an animal or a hatchling lives in from a moment on. */
export function TubForm({ of, onDone }: { of: Individual; onDone: () => void }) {
  const form = useForm({ defaultValues: { name: '' } })
  const move = useAct(
    (body: Schemas['TubRequest']) =>
      'animal' in of
        ? answer(api.POST('/api/animals/{animal}/tub', { params: { path: of }, body }))
        : answer(api.POST('/api/hatchlings/{hatchling}/tub', { params: { path: of }, body })),
    (act) => act,
    (problem) => {
      if (!isOfMoment(problem)) form.setError('name', { message: problem.detail })
    },
  )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label="Its tub"
        maxWidth="35rem"
        mt={3}
        onSubmit={form.handleSubmit(({ name }) =>
          move.mutate({ name, at: takeMoment() }, { onSuccess: onDone }),
        )}
      >
        <TextField name="name" label="Tub" required placeholder="H 12" />
        <Box mb={3}>
          <When label="Since" problem={move.error} />
        </Box>
        <FormEnd label="Record it" disabled={move.isPending} onLeave={onDone} />
      </chakra.form>
    </FormProvider>
  )
}
