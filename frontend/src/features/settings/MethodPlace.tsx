import { chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { useNavigate, useParams } from 'react-router'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useAct, useMethods } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { NEW, useCorrection } from '@/shared/corrections/useCorrection'
import {
  MethodFields,
  type MethodValues,
  methodOf,
  valuesOfMethod,
} from '@/shared/method/MethodFields'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { Title, Waiting } from '@/shared/ui/page'
import { stillThere } from '@/shared/ui/stillThere'
import { TickField } from '@/shared/ui/TickField'
import { useTemperatureUnit } from '@/shared/units'

type Values = MethodValues & { chosen: boolean }

/** A house method: made, or changed for the clutches to come. */
export function Component() {
  const { method: asked = '' } = useParams()
  const methods = useMethods()
  if (!methods.data) return <Waiting problem={methods.error?.message} />
  const id = /^\d+$/.test(asked) ? Number(asked) : null
  const held =
    methods.data.methods.find((m) => m.id === id && id !== null) ??
    (asked === 'standard' ? methods.data.methods.find((m) => m.id === null) : undefined)
  if (id !== null && !held) return <Waiting problem="There is no such method." />
  const start = held ?? methods.data.methods[0]
  if (!start) return <Waiting />
  return (
    <MethodForm
      key={asked}
      told={methods.data}
      id={id}
      start={asked === 'new' ? { ...start.method, name: '' } : start.method}
      chosen={held?.chosen ?? false}
      revision={held?.revision ?? NEW}
    />
  )
}

function MethodForm({
  told,
  id,
  start,
  chosen,
  revision,
}: {
  told: Schemas['MethodsResponse']
  id: number | null
  start: Schemas['Method']
  chosen: boolean
  revision: string
}) {
  const unit = useTemperatureUnit()
  const navigate = useNavigate()
  const [opened] = useState(() => ({ ...valuesOfMethod(start, unit), chosen }))
  const form = useForm<Values>({ defaultValues: opened })
  const bodyOf = ({ chosen, ...values }: Values) => ({ method: methodOf(values, unit), chosen })
  const add = useAct(
    (body: Schemas['MethodRequest']) => answer(api.POST('/api/methods', { body })),
    (added) => added.act,
    () => {},
  )
  const correction = useCorrection({
    revision,
    opened: bodyOf(opened),
    send: (body: Schemas['MethodRequest'], header) =>
      answer(
        api.PUT('/api/methods/{method}', { params: { path: { method: id ?? 0 }, header }, body }),
      ),
    actOf: (act) => act,
    onDone: () => navigate('/settings/methods'),
  })
  const refuse = (here: () => boolean) => (problem: Problem) => {
    const field = problem.fields[0]?.field.replace('method.', '') ?? 'name'
    const at = field in opened ? (field as keyof MethodValues) : 'name'
    form.setError(at, { message: problem.detail })
    if (here()) form.setFocus(at)
  }
  const drop = useAct(
    () => answer(api.DELETE('/api/methods/{method}', { params: { path: { method: id ?? 0 } } })),
    (act) => act,
  )
  return (
    <FormProvider {...form}>
      <Title>{start.name ? `Method ${start.name}` : 'A new method'}</Title>
      <chakra.form
        noValidate
        maxWidth="53.75rem"
        mt={6}
        onSubmit={form.handleSubmit((values) =>
          id === null
            ? add.mutate(bodyOf(values), {
                onSuccess: () => navigate('/settings/methods'),
                onError: refuse(stillThere()),
              })
            : correction.save(bodyOf(values), refuse(stillThere())),
        )}
      >
        <TextField name="name" label="Name" required />
        <MethodFields told={told} />
        <TickField name="chosen" label="New clutches start from this method" my={3} />
        <Flex gap={3} wrap="wrap">
          <Button type="submit" variant="act" disabled={add.isPending || correction.pending}>
            Save the method
          </Button>
          {id !== null && (
            <Button
              type="button"
              onClick={() =>
                drop.mutate(undefined, { onSuccess: () => navigate('/settings/methods') })
              }
            >
              Take it away
            </Button>
          )}
        </Flex>
      </chakra.form>
      <BothVersions
        correction={correction}
        labels={{ chosen: 'New clutches start from this method' }}
      />
    </FormProvider>
  )
}
