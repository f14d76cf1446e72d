import { Box, chakra, Text } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import type { Hatchling } from '@/shared/hatchlings/queries'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { Choices } from '@/shared/ui/Choices'
import { FormEnd } from '@/shared/ui/FormEnd'
import { TextField } from '@/shared/ui/fields'

type Role = 'dam' | 'sire'

const ROLE_OF: Record<string, Role> = { female: 'dam', male: 'sire' }

/** Keep a hatchling to breed with: it gets a name, and what was recorded of it goes with it. */
export function HoldBackForm({ hatchling, onDone }: { hatchling: Hatchling; onDone: () => void }) {
  const navigate = useNavigate()
  const form = useForm<{ name: string; role: Role | null }>({
    defaultValues: { name: '', role: ROLE_OF[hatchling.sex] ?? null },
  })
  const hold = useAct(
    (body: Schemas['HoldBackRequest']) =>
      answer(
        api.POST('/api/hatchlings/{hatchling}/held-back', {
          params: { path: { hatchling: hatchling.id } },
          body,
        }),
      ),
    ({ act }) => act,
    (problem) => {
      if (!isOfMoment(problem)) form.setError('name', { message: problem.detail })
    },
  )
  const role = form.watch('role')
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label="Hold it back"
        maxWidth="35rem"
        mt={3}
        onSubmit={form.handleSubmit((values) =>
          hold.mutate(
            { ...values, at: takeMoment() },
            { onSuccess: ({ animal }) => navigate(`/animals/${animal}`) },
          ),
        )}
      >
        <Text color="soft" mb={3}>
          It becomes an animal of the house, with its parents, its egg and its photos. What was
          recorded of it goes with it.
        </Text>
        <TextField name="name" label="Its name" required />
        <Box mb={4}>
          <Choices<Role>
            legend="Kept as"
            columns={2}
            choices={[
              { value: 'dam', label: 'Dam' },
              { value: 'sire', label: 'Sire' },
            ]}
            value={role}
            onChoose={(value) => form.setValue('role', value)}
          />
        </Box>
        {role === null && (
          <Text color="soft" mb={3}>
            It is not sexed yet: choose what you think; that can be corrected until it breeds.
          </Text>
        )}
        <Box mb={3}>
          <When label="Held back" problem={hold.error} />
        </Box>
        <FormEnd label="Hold it back" disabled={hold.isPending} onLeave={onDone} />
      </chakra.form>
    </FormProvider>
  )
}
