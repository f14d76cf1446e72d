import { Box, chakra, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { NEW, useCorrection } from '@/shared/corrections/useCorrection'
import { Button } from '@/shared/ui/Button'
import { Chips } from '@/shared/ui/Chips'
import { Choices } from '@/shared/ui/Choices'
import { FormEnd } from '@/shared/ui/FormEnd'
import { TextField } from '@/shared/ui/fields'
import { Tick } from '@/shared/ui/Tick'
import { TraitFields, type TraitValue } from '@/shared/ui/TraitFields'
import { typedGrams } from '@/shared/units'
import type { Hatchling } from './queries'

type Sex = Schemas['Sex']
type Size = Schemas['Size']
type Yolk = Schemas['YolkLeft']
type Defect = Schemas['Defect']

type Values = {
  mass: string
  sex: Sex
  size: Size | null
  yolk: Yolk | null
  defects: Defect[]
  traits: TraitValue[]
  plain: boolean
  note: string
}

const same = <T extends string>(values: T[]) => values.map((value) => ({ value, label: value }))

/** What came out of an egg: weight, sex, yolk, traits, defects. */
export function HatchlingForm({
  code,
  number,
  part,
  held,
  onDone,
}: {
  code: string
  number: number
  part: number
  held: Hatchling | undefined
  onDone: () => void
}) {
  const [start] = useState(() => startOf(held))
  const form = useForm<Values>({ defaultValues: start })
  const [question, setQuestion] = useState<Problem | null>(null)
  const correction = useCorrection({
    revision: held?.revision ?? NEW,
    opened: held ? bodyOf(start, part, false) : null,
    send: (body: Schemas['HatchlingRequest'], header) =>
      answer(
        api.PUT('/api/clutches/{code}/eggs/{number}/hatchling', {
          params: { path: { code, number }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone,
  })
  const refuse = (problem: Problem) => {
    if (problem.confirm) return setQuestion(problem)
    const at = problem.fields[0]?.field ?? ''
    form.setError(at.startsWith('traits') ? 'root.traits' : at === 'note' ? 'note' : 'mass', {
      message: problem.detail,
    })
  }
  const send = (twins: boolean) =>
    form.handleSubmit((values) => correction.save(bodyOf(values, part, twins), refuse))
  const { sex, size, yolk, defects, plain } = form.watch()
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        onSubmit={send(false)}
        mt={3}
        display="flex"
        flexDirection="column"
        gap={4}
        maxWidth="40rem"
        aria-label={`Hatchling ${number}`}
      >
        <TextField
          name="mass"
          label="Weight, g"
          inputMode="decimal"
          check={(text) => !text.trim() || typedGrams(text) > 0 || 'Grams as a number, like 61.5.'}
        />
        <Choices<Sex>
          legend="Sex: a trained person's job"
          columns={3}
          choices={same<Sex>(['male', 'female', 'not sexed'])}
          value={sex}
          onChoose={(value) => form.setValue('sex', value)}
        />
        <Choices<Size>
          legend="Size"
          columns={3}
          choices={same<Size>(['small', 'usual', 'large'])}
          value={size}
          onChoose={(value) => form.setValue('size', value)}
        />
        <Choices<Yolk>
          legend="Yolk"
          columns={3}
          choices={same<Yolk>(['absorbed', 'some left', 'much left'])}
          value={yolk}
          onChoose={(value) => form.setValue('yolk', value)}
        />
        <Chips<Defect>
          legend="Defects"
          chips={same<Defect>(['kink', 'cleft', 'open belly', 'no eyes', 'other'])}
          on={defects}
          onToggle={(value) =>
            form.setValue(
              'defects',
              defects.includes(value) ? defects.filter((d) => d !== value) : [...defects, value],
            )
          }
        />
        {defects.length > 0 && (
          <Text color="soft">A malformed hatchling: a reptile vet can say what it means.</Text>
        )}
        <div>
          <TraitFields />
          <Tick
            label="Shows no trait"
            checked={plain}
            onChange={(checked) => form.setValue('plain', checked)}
          />
        </div>
        <TextField name="note" label="In your own words" />
        {question ? (
          <Box role="alert">
            <Text fontWeight="semibold" mb={2}>
              {question.detail}
            </Text>
            <Button type="button" variant="act" onClick={send(true)}>
              Yes, twins
            </Button>
          </Box>
        ) : (
          <FormEnd
            label={held ? 'Save' : 'Record it'}
            disabled={correction.pending}
            onLeave={onDone}
          />
        )}
      </chakra.form>
      <BothVersions
        correction={correction}
        labels={{ plain: 'Shows no trait', note: 'In your own words' }}
      />
    </FormProvider>
  )
}

function bodyOf(values: Values, part: number, twins: boolean): Schemas['HatchlingRequest'] {
  return {
    part,
    mass_g: values.mass.trim() ? typedGrams(values.mass) : null,
    sex: values.sex,
    size: values.size,
    yolk: values.yolk,
    traits: values.traits,
    plain: values.plain,
    defects: values.defects,
    note: values.note,
    twins,
  }
}

function startOf(held: Hatchling | undefined): Values {
  return {
    mass: held?.weights[0] ? String(held.weights[0].mass_g) : '',
    sex: (held?.sex as Sex | undefined) ?? 'not sexed',
    size: (held?.size as Size | null | undefined) ?? null,
    yolk: (held?.yolk as Yolk | null | undefined) ?? null,
    defects: (held?.defects as Defect[] | undefined) ?? [],
    plain: held?.plain ?? false,
    traits: (held?.traits as TraitValue[] | undefined) ?? [],
    note: held?.note ?? '',
  }
}
