import { useSyncExternalStore } from 'react'

/** The core and the API speak °C; these turn it into what the keeper reads and back. */
export type TemperatureUnit = 'C' | 'F'

const KEY = 'sandboa.temperature'
/** Does not break: a number stays on the line of its unit. */
const SPACE = '\u00a0'
const listeners = new Set<() => void>()

export function temperatureUnit(): TemperatureUnit {
  return localStorage.getItem(KEY) === 'F' ? 'F' : 'C'
}

export function useTemperatureUnit(): TemperatureUnit {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    temperatureUnit,
    temperatureUnit,
  )
}

export function setTemperatureUnit(unit: TemperatureUnit) {
  localStorage.setItem(KEY, unit)
  for (const listener of listeners) listener()
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

const NUMBER = '-?\\d+(?:\\.\\d+)?'
const SAID = new RegExp(`(?:(${NUMBER}) to )?(${NUMBER}) °C`, 'g')
/** Degrees between two temperatures: the house writes them C°, for they are turned otherwise. */
const APART = new RegExp(`(${NUMBER}) C°`, 'g')

/**
 * A sentence of the house, which speaks °C, with its temperatures in the keeper's unit:
 * "31.5 °C", "31.1 to 32.0 °C"; and differences, "2 C°", as such.
 */
export function inKeepersUnit(sentence: string, unit: TemperatureUnit): string {
  const apart = sentence.replace(APART, (_, celsius: string) =>
    difference(Number(celsius), unit, unit === 'C' && !celsius.includes('.') ? 0 : 1),
  )
  if (unit === 'C') return apart.replace(/(\d) °C/g, `$1${SPACE}°C`)
  return apart.replace(SAID, (_, from: string | undefined, celsius: string) => {
    const start = from === undefined ? '' : `${fromCelsius(Number(from), unit).toFixed(1)} to `
    return start + temperature(Number(celsius), unit)
  })
}

/** °C of a temperature as typed: in the keeper's unit, or with its own, like 88.7F. */
export function typedTemperature(text: string, unit: TemperatureUnit): number {
  const match = /^(.*\d)\s*°?\s*([cf])$/i.exec(text.trim())
  const own = match?.[2]?.toUpperCase() as TemperatureUnit | undefined
  return toCelsius(typedNumber(match?.[1] ?? text), own ?? unit)
}

/** A number as typed, with decimal point or comma; NaN when it is none. */
export function typedNumber(text: string): number {
  const tidy = text.trim().replace(',', '.')
  return /^[+-]?\d+(\.\d+)?$/.test(tidy) ? Number(tidy) : Number.NaN
}
