import type { Problem, Schemas } from '@/shared/api/client'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { degrees, type TemperatureUnit, typedTemperature } from '@/shared/units'

export type OriginKind = Schemas['OriginKind']
export type TorchStage = Schemas['TorchStage']

/** How it is known when they were laid. */
export type KnownBy = 'time' | 'between' | 'torch'

export type OriginValues = {
  kind: OriginKind
  by: KnownBy
  laidAt: string
  laidFrom: string
  laidUntil: string
  stage: TorchStage | null
  stageSeenAt: string
  arrivedAt: string
  before: string
}

export const EMPTY: OriginValues = {
  kind: 'found',
  by: 'between',
  laidAt: '',
  laidFrom: '',
  laidUntil: '',
  stage: null,
  stageSeenAt: '',
  arrivedAt: '',
  before: '',
}

type Body = Schemas['OriginState']

/** What the form tells the house: only what belongs to the way it is known. */
export function originOf(values: OriginValues, unit: TemperatureUnit): Body {
  const { kind, by } = values
  const came = kind !== 'found'
  const moment = (text: string, counts: boolean) => (counts && text ? fromInputMoment(text) : null)
  return {
    kind,
    laid_at: moment(values.laidAt, by === 'time'),
    laid_from: moment(values.laidFrom, by === 'between'),
    laid_until: moment(values.laidUntil, by === 'between'),
    stage: by === 'torch' ? values.stage : null,
    stage_seen_at: moment(values.stageSeenAt, by === 'torch'),
    arrived_at: moment(values.arrivedAt, came),
    before_c: came && values.before.trim() ? typedTemperature(values.before, unit) : null,
  }
}

/** The form of what was said before. */
export function originValues(
  origin: Schemas['OriginResponse'] | null,
  unit: TemperatureUnit,
): OriginValues {
  if (!origin) return EMPTY
  const moment = (at: string | null) => (at ? inputMoment(at) : '')
  return {
    kind: origin.kind,
    by: origin.stage ? 'torch' : origin.laid_from ? 'between' : 'time',
    laidAt: moment(origin.laid_at),
    laidFrom: moment(origin.laid_from),
    laidUntil: moment(origin.laid_until),
    stage: origin.stage,
    stageSeenAt: moment(origin.stage_seen_at),
    arrivedAt: moment(origin.arrived_at),
    before: origin.before_c === null ? '' : String(degrees(origin.before_c, unit)),
  }
}

const FIELDS: Record<string, keyof OriginValues> = {
  laid_at: 'laidAt',
  laid_from: 'laidFrom',
  laid_until: 'laidUntil',
  stage: 'stageSeenAt',
  stage_seen_at: 'stageSeenAt',
  arrived_at: 'arrivedAt',
  before_c: 'before',
}

/** The field of the form at which a refusal belongs; the first one that shows where there is none. */
export function refusedField(problem: Problem, values: OriginValues): keyof OriginValues {
  const field = problem.fields[0]?.field.split('.').at(-1) ?? ''
  const first = { time: 'laidAt', between: 'laidFrom', torch: 'stageSeenAt' } as const
  const at = FIELDS[field]
  return at && at !== 'laidAt' ? at : first[values.by]
}
