import { Box, chakra, Grid } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { useNavigate, useParams } from 'react-router'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useAct, useAnimals } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { plainDay } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { FormEnd } from '@/shared/ui/FormEnd'
import { TextField } from '@/shared/ui/fields'
import { Title, Waiting } from '@/shared/ui/page'
import {
  degrees,
  notANumber,
  type TemperatureUnit,
  typedTemperature,
  useTemperatureUnit,
} from '@/shared/units'
import { type PastClutch, pastClutchesQuery } from './queries'

type Values = Record<
  'dam' | 'sire' | 'laid' | 'count' | 'hatched' | 'first_pip' | 'kept' | 'code',
  string
>

/** Correct a past clutch, or take it away; what was recorded before stays in the log. */
export function Component() {
  const { id = '' } = useParams()
  const past = useQuery(pastClutchesQuery)
  if (!past.data) return <Waiting problem={past.error?.message} />
  const clutch = past.data.find((own) => own.id === Number(id))
  if (!clutch) return <Waiting problem="There is no such past clutch" />
  return <Correcting key={id} clutch={clutch} />
}

function Correcting({ clutch }: { clutch: PastClutch }) {
  const navigate = useNavigate()
  const unit = useTemperatureUnit()
  const animals = useAnimals().data ?? []
  const named = (role: string) => animals.filter((a) => a.role === role).map((a) => a.name)
  const leave = () => navigate('/old-records', { replace: true })
  const [start] = useState(() => valuesOf(clutch, unit))
  const form = useForm<Values>({ defaultValues: start })
  const path = { past: clutch.id }
  const correction = useCorrection({
    revision: clutch.revision,
    opened: requestOf(start, clutch, start, unit),
    send: (body: Schemas['PastClutchRequest'], header) =>
      answer(api.PUT('/api/past-clutches/{past}', { params: { path, header }, body })),
    actOf: (act) => act,
    onDone: leave,
  })
  const remove = useAct(
    () => answer(api.DELETE('/api/past-clutches/{past}', { params: { path } })),
    (act) => act,
  )
  const refuse = (problem: Problem) => {
    const field = problem.fields[0]?.field ?? ''
    form.setError(field in start ? (field as keyof Values) : 'dam', { message: problem.detail })
  }
  const save = form.handleSubmit((values) =>
    correction.save(requestOf(values, clutch, start, unit), refuse),
  )
  return (
    <>
      <Title>Edit a past clutch</Title>
      <FormProvider {...form}>
        <chakra.form noValidate mt={6} maxWidth="44rem" onSubmit={save}>
          <Grid templateColumns={{ base: '1fr', md: '1fr 1fr' }} columnGap={5}>
            <TextField name="dam" label="Dam" required offers={named('dam')} />
            <TextField name="sire" label="Sire" offers={named('sire')} />
            <TextField name="laid" label="Laid" help="like 12 Jun 2019" required />
            <TextField
              name="count"
              label="Eggs-slugs"
              help="7-2 is seven laid, two slugs"
              required
            />
            <TextField
              name="hatched"
              label="Hatched"
              inputMode="numeric"
              check={(text) => /^\d*$/.test(text.trim()) || 'A whole number, or nothing.'}
            />
            <TextField name="first_pip" label="First pip" />
            <TextField
              name="kept"
              label={`Kept at about, °${unit}`}
              inputMode="decimal"
              check={(text) =>
                !text.trim() ||
                !Number.isNaN(typedTemperature(text, unit)) ||
                notANumber(text, 'A temperature, or nothing.')
              }
            />
            <TextField name="code" label="What the card calls it" />
          </Grid>
          <FormEnd label="Record the correction" disabled={correction.pending} onLeave={leave} />
          <Box mt={8}>
            <Button
              type="button"
              disabled={remove.isPending}
              onClick={() => remove.mutate(undefined, { onSuccess: leave })}
            >
              Take this clutch away
            </Button>
          </Box>
        </chakra.form>
      </FormProvider>
      <BothVersions
        correction={correction}
        labels={{ count: 'Eggs-slugs', first_pip: 'First pip', kept_c: 'Kept at about' }}
      />
    </>
  )
}

function valuesOf(clutch: PastClutch, unit: TemperatureUnit): Values {
  return {
    dam: clutch.dam,
    sire: clutch.sire ?? '',
    laid: plainDay(clutch.laid),
    count: clutch.count,
    hatched: clutch.hatched?.toString() ?? '',
    first_pip: clutch.first_pip ? plainDay(clutch.first_pip) : '',
    kept: clutch.kept_c === null ? '' : String(degrees(clutch.kept_c, unit)),
    code: clutch.code ?? '',
  }
}

function requestOf(
  values: Values,
  clutch: PastClutch,
  start: Values,
  unit: TemperatureUnit,
): Schemas['PastClutchRequest'] {
  // What was not touched stays as it is, whatever it was shown as.
  const kept = values.kept === start.kept ? clutch.kept_c : keptOf(values.kept.trim(), unit)
  return {
    dam: values.dam.trim(),
    sire: values.sire.trim() || null,
    laid: values.laid === start.laid ? clutch.laid : values.laid.trim(),
    count: values.count.trim(),
    hatched: values.hatched.trim() ? Number(values.hatched) : null,
    first_pip:
      values.first_pip === start.first_pip ? clutch.first_pip : values.first_pip.trim() || null,
    kept_c: kept,
    code: values.code.trim() || null,
  }
}

function keptOf(text: string, unit: TemperatureUnit): number | null {
  return text ? typedTemperature(text, unit) : null
}
