import { Box, chakra, Flex, Grid, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useAct, useAnimals } from '@/shared/api/queries'
import { fromInputMoment } from '@/shared/dates'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { Choices } from '@/shared/ui/Choices'
import { SelectField, TextField } from '@/shared/ui/fields'
import { typedGrams } from '@/shared/units'

/** A weight; a leap from the one before is asked about. */
export function WeightForm({ animal }: { animal: number }) {
  const form = useForm({ defaultValues: { mass: '' } })
  const [question, setQuestion] = useState<Problem | null>(null)
  const weigh = useAct(
    (body: Schemas['WeightRequest']) =>
      answer(api.POST('/api/animals/{animal}/weights', { params: { path: { animal } }, body })),
    (act) => act,
    (problem) =>
      problem.confirm
        ? setQuestion(problem)
        : isOfMoment(problem) || form.setError('mass', { message: problem.detail }),
  )
  const send = ({ mass }: { mass: string }, confirmed: boolean) =>
    weigh.mutate(
      { mass_g: typedGrams(mass), at: takeMoment(), confirmed },
      {
        onSuccess: () => {
          form.reset()
          setQuestion(null)
        },
      },
    )
  return (
    <FormProvider {...form}>
      <chakra.form noValidate onSubmit={form.handleSubmit((values) => send(values, false))}>
        <TextField
          name="mass"
          label="Weight, g"
          inputMode="decimal"
          required
          check={(text) => !Number.isNaN(typedGrams(text)) || 'Grams as a number, like 1850.'}
          onTyped={() => setQuestion(null)}
        />
        <Box mb={3}>
          <When label="Weighed" problem={weigh.error} />
        </Box>
        {question ? (
          <Box role="alert">
            <Text fontWeight="semibold" mb={2}>
              {question.detail}
            </Text>
            <Button
              type="button"
              variant="act"
              onClick={form.handleSubmit((values) => send(values, true))}
            >
              Yes, record it
            </Button>
          </Box>
        ) : (
          <Button type="submit" disabled={weigh.isPending}>
            Record weight
          </Button>
        )}
      </chakra.form>
    </FormProvider>
  )
}

/** A meal offered, taken or refused. */
export function MealForm({ animal }: { animal: number }) {
  const form = useForm({ defaultValues: { prey: '', mass: '' } })
  const offer = useAct(
    (body: Schemas['MealRequest']) =>
      answer(api.POST('/api/animals/{animal}/meals', { params: { path: { animal } }, body })),
    (act) => act,
    (problem) => {
      const field = problem.fields[0]?.field === 'mass_g' ? 'mass' : 'prey'
      if (!isOfMoment(problem)) form.setError(field, { message: problem.detail })
    },
  )
  const send = (taken: boolean) =>
    form.handleSubmit(({ prey, mass }) =>
      offer.mutate(
        {
          taken,
          prey,
          mass_g: mass.trim() ? typedGrams(mass) : null,
          at: takeMoment(),
        },
        { onSuccess: () => form.reset() },
      ),
    )
  return (
    <FormProvider {...form}>
      <chakra.form noValidate onSubmit={send(true)}>
        <Grid templateColumns="1fr 1fr" columnGap={4}>
          <TextField name="prey" label="Prey" placeholder="small rat" />
          <TextField
            name="mass"
            label="Its weight, g"
            inputMode="decimal"
            check={(text) => !text.trim() || typedGrams(text) > 0 || 'A number, or empty.'}
          />
        </Grid>
        <Box mb={3}>
          <When label="Offered" problem={offer.error} />
        </Box>
        <Flex gap={3}>
          <Button type="submit" disabled={offer.isPending}>
            Taken
          </Button>
          <Button type="button" disabled={offer.isPending} onClick={send(false)}>
            Refused
          </Button>
        </Flex>
      </chakra.form>
    </FormProvider>
  )
}

const SIGNS: { value: Schemas['Sign']; label: string }[] = [
  { value: 'off food', label: 'Off food' },
  { value: 'ovulation', label: 'Ovulation' },
  { value: 'pre-lay shed', label: 'Pre-lay shed' },
  { value: 'ill', label: 'Ill' },
]

/** What announces a clutch (a pre-lay shed overrides an ovulation), and illness: it may tell later. */
export function SignForm({ dam }: { dam: number }) {
  const form = useForm<{ sign: Schemas['Sign'] | '' }>({ defaultValues: { sign: '' } })
  const see = useAct(
    (body: Schemas['SignRequest']) => answer(api.POST('/api/breeding/signs', { body })),
    (act) => act,
  )
  const sign = form.watch('sign')
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        display="flex"
        flexDirection="column"
        gap={3}
        onSubmit={form.handleSubmit(({ sign }) => {
          if (!sign) return
          see.mutate({ dam, sign, seen_at: takeMoment() }, { onSuccess: () => form.reset() })
        })}
      >
        <Choices
          legend="Signs seen"
          columns={2}
          choices={SIGNS}
          value={sign || null}
          onChoose={(chosen) => form.setValue('sign', chosen)}
        />
        {sign && (
          <div>
            <When problem={see.error} />
            <Button type="submit" disabled={see.isPending}>
              Record {sign}
            </Button>
          </div>
        )}
      </chakra.form>
    </FormProvider>
  )
}

/** A visit of a sire with its dates, also one of the past, and the lock seen meanwhile. */
export function VisitForm({ dam }: { dam: number }) {
  const sires = useAnimals().data?.filter((a) => a.role === 'sire' && !a.retired) ?? []
  const form = useForm({ defaultValues: { sire: '', start: '', until: '', lock: '' } })
  const visit = useAct(
    (body: Schemas['PairingRequest']) => answer(api.POST('/api/breeding/pairings', { body })),
    (act) => act,
    (problem) => {
      const fields: Record<string, 'start' | 'until' | 'lock'> = {
        from: 'start',
        until: 'until',
        lock_at: 'lock',
      }
      const field = fields[problem.fields[0]?.field ?? ''] ?? 'sire'
      form.setError(field, { message: problem.detail })
    },
  )
  if (sires.length === 0) return null
  const moment = (text: string) => (text ? fromInputMoment(text) : null)
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={6}
        onSubmit={form.handleSubmit(({ sire, start, until, lock }) =>
          visit.mutate(
            {
              dam,
              sire: Number(sire),
              start: moment(start),
              until: moment(until),
              lock_at: moment(lock),
            },
            { onSuccess: () => form.reset() },
          ),
        )}
      >
        <SelectField
          name="sire"
          label="Paired with"
          required
          options={[
            { value: '', label: 'choose' },
            ...sires.map((sire) => ({ value: String(sire.id), label: sire.name })),
          ]}
        />
        <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap={4}>
          <TextField name="start" label="From, if not now" type="datetime-local" />
          <TextField name="until" label="Until, if over" type="datetime-local" />
        </Grid>
        <TextField name="lock" label="Lock seen, if any" type="datetime-local" />
        <Button type="submit" disabled={visit.isPending}>
          Record the visit
        </Button>
      </chakra.form>
    </FormProvider>
  )
}
