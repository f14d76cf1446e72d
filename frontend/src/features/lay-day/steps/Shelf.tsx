import { Box, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { useNavigate } from 'react-router'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useAct, useChoices, useReadiness } from '@/shared/api/queries'
import { Readiness } from '@/shared/climate/Readiness'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { Choices } from '@/shared/ui/Choices'
import { TextField } from '@/shared/ui/fields'
import { Notice, Waiting } from '@/shared/ui/page'
import { fromCelsius, typedTemperature, useTemperatureUnit } from '@/shared/units'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'
import { STEP_TITLES, type State, type Step, titleOf } from '../steps'

type Values = { cabinet: string; shelf: string; setPoint: string; code: string }
type Cabinet = Schemas['CabinetChoiceResponse']

const OTHER = 'another'
const THERE = 'there'

/** Which shelf the box goes on; here the clutch is recorded. */
export function Shelf({ day, step, back, change, keep }: StepProps) {
  const choices = useChoices()
  const readiness = useReadiness()
  if (!choices.data) return <Waiting />
  const maternal = day.state.method.dam === 'maternal incubation'
  const shared = !!day.state.into
  return (
    <ShelfForm
      day={day}
      step={step}
      back={back}
      change={change}
      keep={keep}
      cabinets={maternal || shared ? [] : choices.data.cabinets}
      readiness={readiness.data ?? []}
      maternal={maternal}
    />
  )
}

function ShelfForm({
  day,
  step,
  back,
  change,
  keep,
  cabinets,
  readiness,
  maternal,
}: Omit<StepProps, 'next'> & {
  cabinets: Cabinet[]
  readiness: Schemas['CabinetReadinessResponse'][]
  maternal: boolean
}) {
  const { state } = day
  const unit = useTemperatureUnit()
  const navigate = useNavigate()
  // In a box that is there they stand where it stands.
  const [place, setPlace] = useState(() => (state.into ? THERE : placeSaid(state, cabinets)))
  const [refusal, setRefusal] = useState<Refused | null>(null)
  const own = state.set_point_c ?? (maternal ? null : state.method.temperature_c)
  const form = useForm<Values>({
    defaultValues: {
      cabinet: state.cabinet || (maternal ? `${state.dam}'s tub` : ''),
      shelf: state.shelf || (maternal ? 'tub' : ''),
      setPoint: own === null ? '' : fromCelsius(own, unit).toFixed(1),
      code: state.code ?? '',
    },
  })
  const record = useAct<void, Schemas['LaidResponse']>(
    () =>
      answer(
        api.POST('/api/lay-day-drafts/{lay_day}/clutch', {
          params: { path: { lay_day: day.id } },
        }),
      ),
    (laid) => laid.act,
    (problem) => {
      const field = problem.fields[0]?.field
      const at = field && field in STEP_TITLES ? (field as Step) : undefined
      setRefusal({ problem, at })
    },
  )
  const [cabinetName, shelfName] = place.split('\n')
  const cabinet = cabinets.find((c) => c.name === cabinetName)

  const submit = async (values: Values, second_clutch?: boolean) => {
    const chosen: Partial<State> =
      place === THERE
        ? {}
        : place === OTHER
          ? {
              cabinet: values.cabinet,
              shelf: values.shelf,
              set_point_c: Math.round(typedTemperature(values.setPoint, unit) * 1000) / 1000,
            }
          : {
              cabinet: cabinetName ?? '',
              shelf: shelfName ?? '',
              set_point_c: cabinet?.set_point_c ?? state.method.temperature_c,
            }
    setRefusal(null)
    try {
      await keep({
        ...chosen,
        code: values.code.trim() || null,
        ...(second_clutch && { second_clutch }),
      })
    } catch (problem) {
      return setRefusal({ problem: problem as Problem })
    }
    record.mutate(undefined, {
      onSuccess: () => navigate(`/lay-day/${day.id}/card`),
    })
  }
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      busy={record.isPending}
      {...(place && { nextLabel: 'Record the clutch' })}
      onSubmit={form.handleSubmit((values) => submit(values))}
    >
      {state.into && (
        <p>
          They lie in box <strong>{state.into}</strong> and stand where it stands.
        </p>
      )}
      {cabinets.map(({ name, shelves }) => (
        <Box key={name}>
          <Choices
            legend={name}
            columns={{ base: 1, md: Math.max(2, Math.min(3, shelves.length)) }}
            choices={shelves.map((shelf) => ({ value: `${name}\n${shelf}`, label: shelf }))}
            value={place}
            onChoose={(chosen) => {
              setPlace(chosen)
              const [cabinet = '', shelf = ''] = chosen.split('\n')
              change({ cabinet, shelf })
            }}
          />
          <Readiness cabinet={readiness.find((r) => r.cabinet === name)} />
        </Box>
      ))}
      {cabinets.length > 0 && (
        <Choices
          legend="Another cabinet or shelf"
          hideLegend
          columns={1}
          choices={[{ value: OTHER, label: 'Another cabinet or shelf' }]}
          value={place}
          onChoose={setPlace}
        />
      )}
      <FormProvider {...form}>
        {place === OTHER && <AnotherPlace maternal={maternal} />}
        <TextField
          name="code"
          label="Code on the card"
          placeholder={day.next_code}
          help={`Left empty: ${day.next_code}.`}
        />
      </FormProvider>
      {refusal && (
        <Refusal
          {...refusal}
          step={step}
          state={state}
          onSecondClutch={form.handleSubmit((values) => submit(values, true))}
          onGo={(at) => navigate(`/lay-day/${day.id}/${at}`)}
        />
      )}
    </StepFrame>
  )
}

/** What was chosen before: a shelf that is known, another, or nothing yet. */
function placeSaid({ cabinet, shelf }: State, cabinets: Cabinet[]): string {
  const known = cabinets.some((c) => c.name === cabinet && c.shelves.includes(shelf))
  if (known) return `${cabinet}\n${shelf}`
  return cabinets.length > 0 && !cabinet ? '' : OTHER
}

/** A cabinet or tub that the house does not know yet, and how warm it is there. */
function AnotherPlace({ maternal }: { maternal: boolean }) {
  const unit = useTemperatureUnit()
  const words = maternal
    ? {
        cabinet: 'Tub',
        shelf: 'Place',
        setPoint: 'Temperature in her coils, as far as known',
        help: 'A probe in her tub replaces this number. Windows are twice as wide.',
      }
    : {
        cabinet: 'Cabinet',
        shelf: 'Shelf',
        setPoint: 'Set point of the cabinet',
        help: 'Or with its unit, like 88.7F.',
      }
  return (
    <div>
      {!maternal && <Caution moment="mains and water" />}
      <Grid templateColumns="1fr 1fr" gap={4}>
        <TextField name="cabinet" label={words.cabinet} required />
        <TextField name="shelf" label={words.shelf} required />
      </Grid>
      <TextField
        name="setPoint"
        label={`${words.setPoint}, °${unit}`}
        inputMode="decimal"
        required
        help={words.help}
        check={(text) => !Number.isNaN(typedTemperature(text, unit)) || 'A number, like 31.5'}
      />
    </div>
  )
}

type Refused = { problem: Problem; at?: Step | undefined }
type RefusalProps = Refused & {
  step: Step
  state: State
  onSecondClutch: () => void
  onGo: (at: Step) => void
}

/** Why the clutch was not recorded, or what is asked first, and the way to mend it. */
function Refusal({ problem, at, step, state, onSecondClutch, onGo }: RefusalProps) {
  return (
    <div role="alert">
      <Notice urgent={!problem.confirm} label={problem.confirm ? 'One question' : 'Not yet'}>
        {problem.detail}
        {problem.confirm === 'second_clutch' && (
          <Button type="button" variant="bare" display="block" onClick={onSecondClutch}>
            Yes, a second clutch: record it
          </Button>
        )}
        {at && at !== step && (
          <Button type="button" variant="bare" display="block" onClick={() => onGo(at)}>
            To: {titleOf(at, state).toLowerCase()}
          </Button>
        )}
      </Notice>
    </div>
  )
}
