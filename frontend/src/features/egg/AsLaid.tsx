import { chakra, Grid, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { ShellChips } from '@/shared/shells/ShellChips'
import { toggled } from '@/shared/toggled'
import { Button } from '@/shared/ui/Button'
import { Chips } from '@/shared/ui/Chips'
import { Choices } from '@/shared/ui/Choices'
import { FormEnd } from '@/shared/ui/FormEnd'
import { TextField } from '@/shared/ui/fields'
import { Waiting } from '@/shared/ui/page'
import { Tick } from '@/shared/ui/Tick'
import { typedGrams, typedNumber } from '@/shared/units'
import { asLaidQuery } from './queries'

type AsLaid = Schemas['EggAsLaidResponse']
type Body = Schemas['EggAsLaidRequest']
type Happened = Schemas['EggEvent']

type Values = {
  slug: boolean
  shells: Schemas['Shell'][]
  clump: string
  mass: string
  vessels: Schemas['Vessels'] | null
  disc: Schemas['Disc'] | null
  events: Happened[]
}

const VESSELS: { value: Schemas['Vessels']; label: string }[] = [
  { value: 'strong', label: 'Strong' },
  { value: 'weak', label: 'Weak' },
  { value: 'unsure', label: 'Unsure' },
  { value: 'none', label: 'None' },
  { value: 'broken', label: 'Ring' },
]
const DISCS: { value: Schemas['Disc']; label: string }[] = [
  { value: 'top', label: 'On top' },
  { value: 'side', label: 'At the side' },
  { value: 'under', label: 'Underneath' },
]
const HAPPENED: { value: Happened; label: string }[] = [
  { value: 'turned', label: 'Turned' },
  { value: 'left as it lies', label: 'Left as it lay' },
  { value: 'separated', label: 'Separated' },
  { value: 'torn', label: 'Shell torn' },
  { value: 'dropped', label: 'Dropped' },
  { value: 'supported', label: 'Supported' },
]

/** What lay day said of an egg, to be corrected; the earlier values stay in the log. */
export function AsLaidForm({
  code,
  number,
  onDone,
}: {
  code: string
  number: number
  onDone: () => void
}) {
  const query = useQuery(asLaidQuery(code, number))
  if (!query.data) return <Waiting problem={query.error?.message} />
  return <Form code={code} number={number} laid={query.data} onDone={onDone} />
}

function Form({
  code,
  number,
  laid,
  onDone,
}: {
  code: string
  number: number
  laid: AsLaid
  onDone: () => void
}) {
  const [start] = useState(() => valuesOf(laid))
  const form = useForm<Values>({ defaultValues: start })
  const correction = useCorrection({
    revision: laid.revision,
    opened: bodyOf(start),
    send: (body: Body, header) =>
      answer(
        api.PUT('/api/clutches/{code}/eggs/{number}/as-laid', {
          params: { path: { code, number }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone,
  })
  const { slug, shells, vessels, disc, events } = form.watch()
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label={`Egg ${number} as laid`}
        maxWidth="47.5rem"
        mt={4}
        display="flex"
        flexDirection="column"
        gap={4}
        onSubmit={form.handleSubmit((values) =>
          correction.save(bodyOf(values), (problem) =>
            form.setError(problem.fields[0]?.field === 'clump' ? 'clump' : 'mass', {
              message: problem.detail,
            }),
          ),
        )}
      >
        <Tick label="A slug" checked={slug} onChange={(is) => form.setValue('slug', is)} />
        <ShellChips shells={shells} onChange={(marks) => form.setValue('shells', marks)} />
        {!slug && (
          <>
            <Choices<Schemas['Vessels']>
              legend="By torch on lay day"
              columns={{ base: 3, md: 5 }}
              choices={VESSELS}
              value={vessels}
              onChoose={(value) => form.setValue('vessels', value)}
            />
            <Choices<Schemas['Disc']>
              legend="Its disc lay"
              columns={3}
              choices={DISCS}
              value={disc}
              onChoose={(value) => form.setValue('disc', value)}
            />
            {(vessels || disc) && (
              <Button
                type="button"
                variant="bare"
                size="small"
                alignSelf="flex-start"
                onClick={() => {
                  form.setValue('vessels', null)
                  form.setValue('disc', null)
                }}
              >
                It was not candled
              </Button>
            )}
          </>
        )}
        <Chips<Happened>
          legend="What happened to it"
          chips={HAPPENED}
          on={events}
          onToggle={(event) => form.setValue('events', toggled(events, event))}
        />
        <Grid templateColumns="1fr 1fr" columnGap={4}>
          <TextField
            name="mass"
            label="It weighed, g"
            inputMode="decimal"
            check={(text) => !text.trim() || typedGrams(text) > 0 || 'Grams, or empty.'}
          />
          <TextField
            name="clump"
            label="Its clump, by number"
            inputMode="numeric"
            help="Eggs of one number stick together."
            check={(text) => !text.trim() || /^\d+$/.test(text.trim()) || 'A number, or empty.'}
          />
        </Grid>
        <Text color="soft">The torch and what happened keep the time they were recorded for.</Text>
        <FormEnd label="Record the correction" disabled={correction.pending} onLeave={onDone} />
      </chakra.form>
      <BothVersions
        correction={correction}
        labels={{ mass_g: 'It weighed', shells: 'Shell', events: 'What happened' }}
      />
    </FormProvider>
  )
}

function valuesOf(laid: AsLaid): Values {
  const { slug, shells, vessels, disc, events } = laid
  return {
    slug,
    shells,
    vessels,
    disc,
    events,
    clump: laid.clump?.toString() ?? '',
    mass: laid.mass_g?.toString() ?? '',
  }
}

function bodyOf({ clump, mass, ...values }: Values): Body {
  return {
    ...values,
    vessels: values.slug ? null : values.vessels,
    disc: values.slug ? null : values.disc,
    clump: clump.trim() ? typedNumber(clump) : null,
    mass_g: mass.trim() ? typedGrams(mass) : null,
  }
}
