import { chakra, Flex, Strong, Text } from '@chakra-ui/react'
import { useRef } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { hangProbe } from '@/features/readings/hangProbe'
import { placesOf } from '@/features/readings/places'
import { LEFT_OUT, NEW, SensorProbe, type SensorValues } from '@/features/readings/SensorProbe'
import { answer, api, type Problem } from '@/shared/api/client'
import { useAct, useChoices, useProbes, useToday } from '@/shared/api/queries'
import { inputMoment } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { SelectField } from '@/shared/ui/fields'
import {
  type Heard,
  numbersIn,
  pathWords,
  sensorsIn,
  UNITS,
  type Unit,
  type Value,
  valueWords,
} from './values'

type Values = { sensors: (SensorValues & { units: string[] })[] }

const NOT_STORED = ''

/** Says of each number in a message what it is, and of each sensor in it which probe. */
export function NameValues({ heard, onEnd }: { heard: Heard; onEnd: () => void }) {
  const probes = useProbes().data ?? []
  const loggers = probes.filter((probe) => !probe.by_hand)
  const choices = useChoices().data
  const today = useToday().data
  const places = choices && today ? placesOf(choices, today, null) : []
  // What the page hears meanwhile must not move the form under the hand.
  const sensors = useRef(sensorsIn(numbersIn(heard))).current
  const form = useForm<Values>({
    defaultValues: {
      sensors: sensors.map(({ values }) => ({
        ...asNew(heard.name, places[0]?.value ?? '', today?.as_of),
        probe: probeOf(values),
        units: values.map(unitOf),
      })),
    },
  })
  const told = form.watch('sensors')
  /** As it was when the form was opened: who named it meanwhile is not overwritten. */
  const seen = useRef(heard.revision)
  const hanging = useRef(0)
  /** New probes by name: one is hung once, should what follows be refused. */
  const hung = useRef(new Map<string, number>())
  const store = useAct(
    async ({ sensors: said }: Values) => {
      const values = []
      for (const [at, sensor] of said.entries()) {
        const units = sensors[at]?.values.map((value, n) => [value.path, sensor.units[n]] as const)
        const kept = units?.filter(([, unit]) => unit !== NOT_STORED) ?? []
        if (kept.length === 0 || sensor.probe === LEFT_OUT) continue
        hanging.current = at
        const probe = sensor.probe === NEW ? await hang(sensor) : Number(sensor.probe)
        values.push(...kept.map(([path, unit]) => ({ path, unit: unit as Unit, probe })))
      }
      const source = heard.topic !== null ? { topic: heard.topic } : { device: heard.device }
      const header = { 'If-Match': seen.current }
      return answer(api.PUT('/api/heard', { params: { header }, body: { ...source, values } }))
    },
    (act) => act,
    (problem: Problem) => {
      const at = hanging.current
      const isNew = form.getValues(`sensors.${at}.probe`) === NEW
      form.setError(`sensors.${at}.${isNew ? 'name' : 'probe'}`, { message: problem.detail })
    },
  )
  const hang = async (values: SensorValues) => {
    const known = hung.current.get(values.name) ?? (await hangProbe(values, places))
    hung.current.set(values.name, known)
    return known
  }
  const asked = (at: number) => told[at]?.units.some((unit) => unit !== NOT_STORED)
  if (sensors.length === 0) {
    return (
      <Flex mt={3} gap={4} align="center" wrap="wrap">
        <Text>There is no number in what it says.</Text>
        <Button type="button" size="small" onClick={onEnd}>
          Leave it
        </Button>
      </Flex>
    )
  }
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={4}
        maxWidth="34rem"
        aria-label={`What ${heard.name} says`}
        onSubmit={form.handleSubmit((values) => store.mutate(values, { onSuccess: onEnd }))}
      >
        {sensors.map(({ part, values }, at) => (
          <chakra.fieldset key={part} mb={4}>
            {sensors.length > 1 && (
              <chakra.legend mb={2}>
                <Strong>{pathWords(part)}</Strong>
              </chakra.legend>
            )}
            {values.map((value, n) => (
              <SelectField
                key={value.path}
                name={`sensors.${at}.units.${n}`}
                label={`${nameIn(part, value.path)}, now ${valueWords(value)}`}
                options={[{ value: NOT_STORED, label: 'not stored' }, ...UNITS]}
              />
            ))}
            {asked(at) && (
              <SensorProbe
                at={at}
                label="Which probe it is"
                mayLeaveOut={false}
                places={places}
                loggers={loggers}
              />
            )}
          </chakra.fieldset>
        ))}
        <Flex gap={3} wrap="wrap">
          <Button type="submit" variant="act" disabled={store.isPending}>
            {told.some((_, at) => asked(at)) ? 'Store from now on' : 'Store nothing of it'}
          </Button>
          <Button type="button" onClick={onEnd}>
            Leave it as it is
          </Button>
        </Flex>
      </chakra.form>
    </FormProvider>
  )
}

/** A value's name within its part of the message, whose name stands above. */
function nameIn(part: string, path: string): string {
  return pathWords(part ? path.slice(part.length + 1) : path)
}

function unitOf(value: Value): string {
  if (value.named) return value.named.unit
  const reading = value.seems === 'temperature' || value.seems === 'humidity' || value.path === ''
  return reading && value.unit ? value.unit : NOT_STORED
}

function probeOf(values: Value[]): string {
  const named = values.find((value) => value.named)?.named
  return named ? String(named.probe) : ''
}

function asNew(name: string, place: string, now: string | undefined): SensorValues {
  return {
    probe: '',
    name: name.slice(0, 60),
    place,
    since: now ? inputMoment(now) : '',
    checked: 'no',
  }
}
