import { Box, chakra, Text } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { Choices } from '@/shared/ui/Choices'
import { FormEnd } from '@/shared/ui/FormEnd'
import { TextField } from '@/shared/ui/fields'
import type { Leaving } from './individual'

type How = Schemas['Departure']

const HOW: { value: How; label: string }[] = [
  { value: 'sold', label: 'Sold' },
  { value: 'given away', label: 'Given away' },
  { value: 'died', label: 'Died' },
  { value: 'other', label: 'Other' },
]

/** That an animal or a hatchling left the house; everything recorded of it stays. */
export function LeaveForm({ of, onDone }: { of: Leaving; onDone: () => void }) {
  const form = useForm<{ how: How | null; note: string }>({
    defaultValues: { how: null, note: '' },
  })
  const how = form.watch('how')
  const none = 'hatchlings' in of && of.hatchlings.length === 0
  const leave = useAct(
    (body: Schemas['DepartureRequest']) => {
      if ('hatchlings' in of) {
        return answer(api.POST('/api/hatchlings/departures', { body: { ...body, ...of } }))
      }
      return 'animal' in of
        ? answer(api.POST('/api/animals/{animal}/departure', { params: { path: of }, body }))
        : answer(api.POST('/api/hatchlings/{hatchling}/departure', { params: { path: of }, body }))
    },
    (act) => act,
    (problem) => {
      if (!isOfMoment(problem)) form.setError('note', { message: problem.detail })
    },
  )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label="It left the house"
        maxWidth="40rem"
        mt={3}
        onSubmit={form.handleSubmit(({ how, note }) => {
          if (how) leave.mutate({ how, note, at: takeMoment() }, { onSuccess: onDone })
        })}
      >
        <Box mb={4}>
          <Choices<How>
            legend={'hatchlings' in of ? 'They were' : 'It was'}
            columns={{ base: 2, md: 4 }}
            choices={HOW}
            value={how}
            onChoose={(value) => form.setValue('how', value)}
          />
        </Box>
        {how === 'died' && (
          <Text color="soft" mb={3}>
            Why it died, a reptile vet can tell from the body, kept cool and not frozen.
          </Text>
        )}
        <TextField name="note" label="In your own words" />
        <Box mb={3}>
          <When label="Left" problem={leave.error} />
        </Box>
        <FormEnd label="Record it" disabled={!how || none || leave.isPending} onLeave={onDone} />
      </chakra.form>
    </FormProvider>
  )
}
