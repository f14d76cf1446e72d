import type { Schemas } from '@/shared/api/client'

export type Heard = Schemas['HeardResponse']
export type Value = Schemas['ValueResponse']
export type Unit = Schemas['ValueUnit']

/** What a value may be stored as, in the words of a choice. */
export const UNITS: { value: Unit; label: string }[] = [
  { value: 'c', label: 'temperature in °C' },
  { value: 'f', label: 'temperature in °F' },
  { value: 'k', label: 'temperature in K' },
  { value: 'percent', label: 'humidity in %' },
  { value: 'fraction', label: 'humidity, 0 to 1' },
]

const SIGNS: Record<Unit, string> = { c: '°C', f: '°F', k: 'K', percent: '%', fraction: '' }

/** A value as it was said, with the unit it seems to have: "31.4 °C". */
export function valueWords(value: Value): string {
  if (!value.text) return 'nothing yet'
  const unit = value.named?.unit ?? (isReading(value) ? value.unit : null)
  if (unit && SIGNS[unit] && !value.text.includes(SIGNS[unit])) {
    return `${value.text}\u00a0${SIGNS[unit]}`
  }
  if (value.seems === 'battery') return `${value.text}\u00a0%`
  if (value.seems === 'signal') return `${value.text}\u00a0dBm`
  return value.text
}

/** Where the value stands in the message, for people: what the whole message is, or its names. */
export function pathWords(path: string): string {
  return path === '' ? 'the whole message' : path.replaceAll('.', ' › ')
}

function isReading(value: Value): boolean {
  return value.seems === 'temperature' || value.seems === 'humidity'
}

/** Values worth a line: readings, and what a sensor says of its own health. */
export function worthSaying(heard: Heard): Value[] {
  const known = heard.values.filter((value) => value.seems !== null || value.named !== null)
  return known.length > 0 ? known : heard.values.filter((value) => value.unit !== null)
}

export type Kind = 'stored' | 'sensor' | 'other'

/** Whether it is stored, could be a sensor's, or is of something else. */
export function kindOf(heard: Heard): Kind {
  if (heard.values.some((value) => value.named)) return 'stored'
  // A number by itself may be a sensor's, if it could be a temperature or humidity.
  return heard.values.some((value) => isReading(value) || (value.path === '' && value.unit))
    ? 'sensor'
    : 'other'
}

/** Values that stand together are of one sensor: of one part of the message. */
export function sensorsIn(values: Value[]): { part: string; values: Value[] }[] {
  const parts = new Map<string, Value[]>()
  for (const value of values) {
    const part = value.path.includes('.') ? value.path.slice(0, value.path.lastIndexOf('.')) : ''
    parts.set(part, [...(parts.get(part) ?? []), value])
  }
  return [...parts].map(([part, own]) => ({ part, values: own }))
}

/** Values that can be stored: numbers, whatever they are called. */
export function numbersIn(heard: Heard): Value[] {
  return heard.values.filter(
    (value) => value.unit !== null || value.named !== null || Number.isFinite(toNumber(value.text)),
  )
}

function toNumber(text: string): number {
  return text.trim() === '' ? Number.NaN : Number(text)
}
