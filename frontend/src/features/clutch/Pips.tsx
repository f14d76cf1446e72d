import { chakra } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { dayAndTime, fromInputMoment, inputMoment } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'

type Clutch = Schemas['ClutchTold']

/** Which eggs have pipped and when; the next one; and that no more will come. */
export function Pips({ clutch }: { clutch: Clutch }) {
  const pipped = clutch.eggs.filter((egg) => egg.pipped_at)
  const closed = clutch.eggs.filter((egg) => !egg.slug && !egg.pipped_at)
  return (
    <>
      {pipped.length > 0 && (
        <chakra.p mb={3}>
          {pipped
            .map((egg) => `Egg ${egg.number} pipped ${dayAndTime(egg.pipped_at ?? '')}`)
            .join(', ')}
          .
        </chakra.p>
      )}
      {clutch.finished_at ? (
        <p>Done since {dayAndTime(clutch.finished_at)}: what it took is learned from.</p>
      ) : (
        <>
          {closed.length > 0 && <PipForm clutch={clutch} closed={closed.map((e) => e.number)} />}
          {pipped.length > 0 && <Done clutch={clutch} closed={closed.length} />}
        </>
      )}
    </>
  )
}

function PipForm({ clutch, closed }: { clutch: Clutch; closed: number[] }) {
  const form = useForm({
    values: {
      egg: String(closed[0]),
      at: inputMoment(clutch.forecast?.as_of ?? new Date()),
    },
  })
  const see = useAct(
    ({ egg, at }: { egg: string; at: string }) =>
      answer(
        api.POST('/api/clutches/{code}/eggs/{number}/pip', {
          params: { path: { code: clutch.code, number: Number(egg) } },
          body: { at: fromInputMoment(at) },
        }),
      ),
    (act) => act,
    (problem) => form.setError('at', { message: problem.detail }),
  )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        display="grid"
        gridTemplateColumns={{ base: '110px 1fr', md: '130px 260px auto' }}
        columnGap={3}
        onSubmit={form.handleSubmit((said) => see.mutate(said))}
      >
        <SelectField
          name="egg"
          label="Egg"
          options={closed.map((number) => ({ value: String(number), label: String(number) }))}
        />
        <TextField name="at" label="Pip seen" type="datetime-local" required />
        <chakra.div pt={{ base: 0, md: '26px' }}>
          <Button type="submit" disabled={see.isPending}>
            Pipped
          </Button>
        </chakra.div>
      </chakra.form>
    </FormProvider>
  )
}

function Done({ clutch, closed }: { clutch: Clutch; closed: number }) {
  const finish = useAct(
    () =>
      answer(
        api.POST('/api/clutches/{code}/finished', {
          params: { path: { code: clutch.code } },
          body: {},
        }),
      ),
    (act) => act,
  )
  return (
    <Button type="button" disabled={finish.isPending} onClick={() => finish.mutate()}>
      {closed ? `No more will pip: ${closed} stayed closed` : 'All have pipped: done'}
    </Button>
  )
}
