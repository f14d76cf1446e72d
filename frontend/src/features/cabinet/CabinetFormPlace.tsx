import { chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { useNavigate, useParams } from 'react-router'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { NEW, useCorrection } from '@/shared/corrections/useCorrection'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { SelectField, TextField } from '@/shared/ui/fields'
import { Title, Waiting } from '@/shared/ui/page'
import { typedNumber, typedTemperature, useTemperatureUnit } from '@/shared/units'
import { useCabinet } from './queries'

type Said = {
  name: string
  kind: Schemas['CabinetKind']
  shelves: string
  volume: string
  ballast: string
  setPoint: string
}

type Body = Schemas['CabinetRequest']

/** Sets up a cabinet, or corrects one. */
export function Component() {
  const { name } = useParams()
  return name ? <Correcting name={name} /> : <CabinetForm />
}

function Correcting({ name }: { name: string }) {
  const cabinet = useCabinet(name)
  if (!cabinet.data) return <Waiting problem={cabinet.error?.message} />
  return <CabinetForm held={cabinet.data} />
}

function CabinetForm({ held }: { held?: Schemas['CabinetResponse'] }) {
  const unit = useTemperatureUnit()
  const navigate = useNavigate()
  const [start] = useState<Said>(() => ({
    name: held?.name ?? '',
    kind: held?.kind ?? 'bought',
    shelves: held?.shelves.map((s) => s.name).join(', ') ?? '',
    volume: held?.volume_l ? String(held.volume_l) : '',
    ballast: held?.ballast_l ? String(held.ballast_l) : '',
    setPoint: '',
  }))
  const form = useForm<Said>({ defaultValues: start })
  const refuse = (problem: Problem) =>
    form.setError(fieldOf(problem.fields[0]?.field), { message: problem.detail })
  const open = () => navigate(`/cabinets/${encodeURIComponent(form.getValues('name').trim())}`)
  const add = useAct(
    (said: Said) =>
      answer(
        api.POST('/api/cabinets', {
          body: { ...bodyOf(said), set_point_c: typedTemperature(said.setPoint, unit) },
        }),
      ),
    (act) => act,
    refuse,
  )
  const correction = useCorrection({
    revision: held?.revision ?? NEW,
    opened: bodyOf(start),
    send: (body: Body, header) =>
      answer(
        api.PUT('/api/cabinets/{name}', {
          params: { path: { name: held?.name ?? '' }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone: open,
  })
  const litres = (text: string) =>
    text.trim() === '' || !Number.isNaN(typedNumber(text)) || 'Litres as a number.'
  return (
    <FormProvider {...form}>
      <Title>{held ? `Edit ${held.name}` : 'Set up a cabinet'}</Title>
      <chakra.form
        noValidate
        mt={6}
        maxWidth="34rem"
        onSubmit={form.handleSubmit((said) =>
          held ? correction.save(bodyOf(said), refuse) : add.mutate(said, { onSuccess: open }),
        )}
      >
        <TextField name="name" label="Name" required />
        <SelectField
          name="kind"
          label="Kind"
          options={[
            { value: 'bought', label: 'bought' },
            { value: 'home-built', label: 'home-built' },
          ]}
        />
        {form.watch('kind') === 'home-built' && <Caution moment="home-built cabinet" />}
        <TextField
          name="shelves"
          label="Shelves from top to bottom, separated by commas"
          required
          placeholder="upper, middle, lower"
        />
        {!held && (
          <TextField
            name="setPoint"
            label={`Set to, °${unit}`}
            inputMode="decimal"
            required
            check={(text) =>
              !Number.isNaN(typedTemperature(text, unit)) || 'A temperature, like 31.5 or 88.7F.'
            }
          />
        )}
        <TextField name="volume" label="Volume, l" inputMode="decimal" check={litres} />
        <TextField
          name="ballast"
          label="Water in it as ballast, l"
          inputMode="decimal"
          check={litres}
          help="Bottles of water hold the heat through a power cut."
        />
        <Button type="submit" variant="act" disabled={add.isPending || correction.pending}>
          Record
        </Button>
      </chakra.form>
      <BothVersions correction={correction} labels={{ ballast_l: 'Water in it as ballast' }} />
    </FormProvider>
  )
}

function bodyOf(said: Said): Body {
  const litres = (text: string) => (text.trim() ? typedNumber(text) : null)
  return {
    name: said.name,
    kind: said.kind,
    shelves: said.shelves
      .split(',')
      .map((shelf) => shelf.trim())
      .filter(Boolean),
    volume_l: litres(said.volume),
    ballast_l: litres(said.ballast),
  }
}

function fieldOf(field: string | undefined): keyof Said {
  switch (field) {
    case 'shelves':
    case 'shelf':
      return 'shelves'
    case 'volume_l':
      return 'volume'
    case 'ballast_l':
      return 'ballast'
    case 'set point':
    case 'set_point_c':
      return 'setPoint'
    default:
      return 'name'
  }
}
