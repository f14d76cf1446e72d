import { Box, chakra, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { FormEnd } from '@/shared/ui/FormEnd'
import { SelectField, TextField } from '@/shared/ui/fields'

/** A box of another species in the cabinet: it has a name and a place, and no forecast. */
export function OtherSpecies({ cabinet }: { cabinet: Schemas['CabinetResponse'] }) {
  const [open, setOpen] = useState(false)
  const shelves = cabinet.shelves.map((shelf) => shelf.name)
  const form = useForm({ defaultValues: { name: '', species: '', shelf: shelves[0] ?? '' } })
  const add = useAct(
    (body: Schemas['NewBoxRequest']) => answer(api.POST('/api/boxes', { body })),
    (act) => act,
    (problem) => {
      const field = problem.fields[0]?.field === 'species' ? 'species' : 'name'
      if (!isOfMoment(problem)) form.setError(field, { message: problem.detail })
    },
  )
  if (!open) {
    return (
      <Button type="button" variant="bare" size="small" mt={2} onClick={() => setOpen(true)}>
        A box of another species
      </Button>
    )
  }
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label="A box of another species"
        mt={4}
        maxWidth="40rem"
        onSubmit={form.handleSubmit(({ name, species, shelf }) =>
          add.mutate(
            {
              name,
              species,
              kind: 'other species',
              cabinet: cabinet.name,
              shelf,
              at: takeMoment(),
            },
            {
              onSuccess: () => {
                form.reset()
                setOpen(false)
              },
            },
          ),
        )}
      >
        <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap={4}>
          <TextField name="name" label="Its name" required />
          <TextField name="species" label="Species" required />
        </Grid>
        <SelectField name="shelf" label="Shelf" options={shelves} />
        <Box mb={3}>
          <When label="Since" problem={add.error} />
        </Box>
        <FormEnd label="Record it" disabled={add.isPending} onLeave={() => setOpen(false)} />
      </chakra.form>
    </FormProvider>
  )
}

/** That a box of another species is out of the cabinet. */
export function PutAway({ name }: { name: string }) {
  const put = useAct(
    () =>
      answer(
        api.POST('/api/boxes/{name}/put-away', {
          params: { path: { name } },
          body: { at: takeMoment() },
        }),
      ),
    (act) => act,
  )
  return (
    <Button type="button" size="small" disabled={put.isPending} onClick={() => put.mutate()}>
      Put it away
    </Button>
  )
}
