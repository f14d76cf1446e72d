import { useSyncExternalStore } from 'react'

/** The core and the API speak °C; these turn it into what the keeper reads and back. */
export type TemperatureUnit = 'C' | 'F'

/** What this device reads in, where it differs from its keeper. */
const DEVICE = 'sandboa.temperature'
/** What the keeper reads in, as the house said last. */
const KEEPER = 'sandboa.temperature.keeper'
/** Does not break: a number stays on the line of its unit. */
const SPACE = '\u00a0'
const listeners = new Set<() => void>()

export function temperatureUnit(): TemperatureUnit {
  return deviceUnit() ?? keepersUnit()
}

/** The unit of this device alone, null where it reads as its keeper does. */
export function deviceUnit(): TemperatureUnit | null {
  return kept(DEVICE)
}

export function useTemperatureUnit(): TemperatureUnit {
  return useSyncExternalStore(listen, temperatureUnit, temperatureUnit)
}

export function useDeviceUnit(): TemperatureUnit | null {
  return useSyncExternalStore(listen, deviceUnit, deviceUnit)
}

/** What its keeper reads in, on whatever device. */
export function keepersUnit(): TemperatureUnit {
  return kept(KEEPER) ?? 'C'
}

export function useKeepersUnit(): TemperatureUnit {
  return useSyncExternalStore(listen, keepersUnit, keepersUnit)
}

/** What this device reads in from now on; null: as its keeper does. */
export function keepDeviceUnit(unit: TemperatureUnit | null) {
  if (unit) localStorage.setItem(DEVICE, unit)
  else localStorage.removeItem(DEVICE)
  for (const listener of listeners) listener()
}

/** What the house says its keeper reads in. */
export function keepKeepersUnit(unit: TemperatureUnit) {
  localStorage.setItem(KEEPER, unit)
  for (const listener of listeners) listener()
}

function kept(key: string): TemperatureUnit | null {
  const unit = localStorage.getItem(key)
  return unit === 'C' || unit === 'F' ? unit : null
}

function listen(listener: () => void) {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export function fromCelsius(celsius: number, unit: TemperatureUnit): number {
  return unit === 'C' ? celsius : degrees(celsius, unit) + 32
}

export function toCelsius(value: number, unit: TemperatureUnit): number {
  return unit === 'C' ? value : (value - 32) / 1.8
}

/** "31.5 °C" or "88.7 °F". */
export function temperature(celsius: number, unit: TemperatureUnit): string {
  return `${fromCelsius(celsius, unit).toFixed(1)}${SPACE}°${unit}`
}

/** "25 to 35 °C" or "77 to 95 °F", whole degrees. */
export function temperatureRange(low: number, high: number, unit: TemperatureUnit): string {
  return `${fromCelsius(low, unit).toFixed(0)} to ${fromCelsius(high, unit).toFixed(0)}${SPACE}°${unit}`
}

/** Degrees between two temperatures: a difference has no zero to shift. */
export function degrees(celsius: number, unit: TemperatureUnit): number {
  return unit === 'C' ? celsius : celsius * 1.8
}

/** "0.5 °C" or "0.9 °F" between two temperatures. */
export function difference(celsius: number, unit: TemperatureUnit, digits = 1): string {
  return `${degrees(celsius, unit).toFixed(digits)}${SPACE}°${unit}`
}

/** Share developed above which the number itself says nothing any more. */
const FAR_BEYOND = 1.25

/** "42 %" of a share developed; far beyond its term no number at all. */
export function developed(share: number): string {
  return share > FAR_BEYOND ? `over ${percent(FAR_BEYOND)}` : percent(share)
}

/** "42 %" of a share 0-1; does not break. */
export function percent(share: number): string {
  return `${Math.round(share * 100)}${SPACE}%`
}

/** °C of a temperature as typed: in the keeper's unit, or with its own, like 88.7F. */
export function typedTemperature(text: string, unit: TemperatureUnit): number {
  const match = /^(.*\d)\s*°?\s*([cf])$/i.exec(text.trim())
  const own = match?.[2]?.toUpperCase() as TemperatureUnit | undefined
  return toCelsius(typedNumber(match?.[1] ?? text), own ?? unit)
}

/** A number as typed, as people write it; NaN when it is none, or could be two. */
export function typedNumber(text: string): number {
  return readNumber(text, false)
}

/** Grams as typed: "1,134" and "1.134" are 1134, for nobody weighs a box to the milligram. */
export function typedGrams(text: string): number {
  return readNumber(text, true)
}

/** Why a number cannot be taken, in words where it can be read two ways. */
export function notANumber(text: string, otherwise: string): string {
  if (!Number.isNaN(typedGrams(text)) && Number.isNaN(typedNumber(text))) {
    const [whole = '', rest = ''] = text.trim().split(/[.,]/)
    return `${text.trim()} can be read two ways: write ${whole}${rest} or ${whole}.${rest.replace(/0+$/, '') || '0'}.`
  }
  return otherwise
}

/** What to say of grams that cannot be, where they are typed; true when they can, or may be left out. */
export function checkGrams(
  text: string,
  range: readonly number[] | undefined,
  { needed = false, example = 1134 } = {},
): true | string {
  if (!text.trim() && !needed) return true
  const grams = typedGrams(text)
  if (Number.isNaN(grams)) return `Grams as a number, like ${example}.`
  const [low = 0, high = Number.POSITIVE_INFINITY] = range ?? []
  return (
    (grams >= low && grams <= high) ||
    `${grams} g is outside ${low} to ${high.toLocaleString('en')} g.`
  )
}

/** Groups of three digits after a first of one to three that is not nought. */
const grouped = ([first = '', ...rest]: string[]) =>
  /^[1-9]\d{0,2}$/.test(first) && rest.every((part) => part.length === 3)

function readNumber(text: string, thousands: boolean): number {
  const [, sign = '', typed = ''] = /^([+-]?)(.+)$/.exec(text.trim()) ?? []
  const spaced = typed.split(/['\u2019 \u00a0\u202f]/)
  if (spaced.length > 1 && !grouped(spaced.map((part) => part.split(/[.,]/)[0] ?? ''))) {
    return Number.NaN
  }
  const digits = spaced.join('')
  const parts = digits.split(/[.,]/)
  if (!parts.every((part) => /^\d+$/.test(part))) return Number.NaN
  const whole = wholeParts(parts, digits.match(/[.,]/g) ?? [], spaced.length > 1, thousands)
  if (whole === null) return Number.NaN
  return Number(`${sign}${parts.slice(0, whole).join('')}.${parts[whole] ?? '0'}`)
}

/** How many of the parts between points and commas are whole thousands; null where nobody can say. */
function wholeParts(
  parts: string[],
  marks: string[],
  spaced: boolean,
  thousands: boolean,
): number | null {
  const before = parts.length - 1
  if (marks.length <= 1) {
    if (marks.length === 0) return parts.length
    if (!grouped(parts) || spaced) return before
    return thousands ? parts.length : null
  }
  const otherAtTheEnd = !marks.slice(0, -1).includes(marks.at(-1) as string)
  if (otherAtTheEnd && grouped(parts.slice(0, -1))) return before
  return new Set(marks).size === 1 && grouped(parts) ? parts.length : null
}
