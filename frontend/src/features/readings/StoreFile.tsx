import { chakra } from '@chakra-ui/react'
import { useRef } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { inputMoment } from '@/shared/dates'
import { fileBody } from '@/shared/files/fileBody'
import type { FileChoices } from '@/shared/logger-file/Questions'
import { Button } from '@/shared/ui/Button'
import { hangProbe } from './hangProbe'
import type { Place } from './places'
import { LEFT_OUT, NEW, SensorProbe, type SensorValues } from './SensorProbe'
import { sensorName } from './SensorTold'

export type Stored = Schemas['StoredSensorResponse'][]

type Values = { sensors: SensorValues[] }

/** Says which probe each sensor of the file is, a known one or a new one, and stores it. */
export function StoreFile({
  file,
  told,
  choices,
  places,
  probes,
  onStored,
}: {
  file: File
  told: Schemas['ReadFileResponse']
  choices: FileChoices
  places: Place[]
  probes: Schemas['HungProbeResponse'][]
  onStored: (stored: Stored) => void
}) {
  const loggers = probes.filter((probe) => !probe.by_hand)
  const alone = told.sensors.length === 1
  const form = useForm<Values>({
    defaultValues: {
      sensors: told.sensors.map((sensor) => ({
        probe: probeNamed(loggers, sensor.name) ?? (loggers.length ? '' : NEW),
        name: sensor.name,
        place: places[0]?.value ?? '',
        since: sensor.first ? inputMoment(sensor.first.at) : '',
        checked: 'no',
      })),
    },
  })
  const sensors = form.watch('sensors')
  const stored = told.sensors.reduce(
    (rows, sensor, at) => rows + (sensors[at]?.probe === LEFT_OUT ? 0 : sensor.rows),
    0,
  )
  /** The sensor whose probe was hung last: what is refused is refused there. */
  const hanging = useRef(0)
  /** New probes by sensor and name: one is hung once, should another or the file be refused. */
  const hung = useRef(new Map<string, number>())
  const refuse = (at: number, problem: Problem, isNew: boolean) => {
    const named = problem.status === 409 || problem.fields[0]?.field === 'probe'
    form.setError(`sensors.${at}.${isNew && named ? 'name' : 'probe'}`, { message: problem.detail })
  }
  const store = useAct(
    async (values: Values) => {
      const ids: number[] = []
      for (const [at, sensor] of values.sensors.entries()) {
        // One after the other: a refusal is told at its own sensor.
        ids.push(sensor.probe === NEW ? await hang(at, sensor) : Number(sensor.probe))
      }
      return answer(
        api.POST('/api/readings/files', {
          params: { query: { ...choices, probe: ids, file_name: file.name } },
          ...fileBody(file),
        }),
      )
    },
    (answered) => answered.act,
    (problem) => {
      const at = hanging.current
      refuse(at, problem, form.getValues(`sensors.${at}.probe`) === NEW)
    },
  )

  const hang = async (at: number, values: SensorValues) => {
    const key = `${at} ${values.name}`
    const known = hung.current.get(key)
    if (known !== undefined) return known
    hanging.current = at
    const id = await hangProbe(values, places)
    hung.current.set(key, id)
    return id
  }

  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={6}
        maxWidth="34rem"
        onSubmit={form.handleSubmit((values) =>
          store.mutate(values, { onSuccess: (answered) => onStored(answered.stored) }),
        )}
      >
        {told.sensors.map((sensor, at) => (
          <SensorProbe
            key={at}
            at={at}
            label={alone ? 'Which probe wrote it' : `Which probe is ${sensorName(sensor)}`}
            mayLeaveOut={!alone}
            places={places}
            loggers={loggers}
          />
        ))}
        <Button type="submit" variant="act" disabled={store.isPending || stored === 0}>
          Store {stored.toLocaleString('en')} readings
        </Button>
      </chakra.form>
    </FormProvider>
  )
}

/** The logger that has the name the file gives a sensor. */
function probeNamed(loggers: Schemas['HungProbeResponse'][], name: string): string | undefined {
  const wanted = name.trim().toLowerCase()
  const found = wanted ? loggers.find((probe) => probe.name.toLowerCase() === wanted) : undefined
  return found && String(found.id)
}
