import type { Schemas } from '@/shared/api/client'
import { type TemperatureUnit, typedNumber } from '@/shared/units'

export type Setting = Schemas['SettingResponse']

/** Settings of which name, group, unit or reason holds every word that is sought. */
export function found(settings: Setting[], sought: string): Setting[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean)
  return settings.filter((setting) => {
    const text = `${setting.label} ${setting.group} ${setting.unit} ${setting.reason}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
}

/** How a setting is shown to a reader and read back: its unit, and the numbers both ways. */
export function quantityOf({ quantity, unit: told }: Setting, unit: TemperatureUnit) {
  const fahrenheit = unit === 'F'
  if (quantity === 'share') {
    const of = told === 'of 1' ? '%' : `% ${told}`
    return { unit: of, shown: (v: number) => tidy(100 * v), read: (v: number) => v / 100 }
  }
  if (quantity === 'temperature' && fahrenheit) {
    return {
      unit: '°F',
      shown: (v: number) => tidy((v * 9) / 5 + 32),
      read: (v: number) => ((v - 32) * 5) / 9,
    }
  }
  if (quantity === 'temperature difference' && fahrenheit) {
    return { unit: '°F', shown: (v: number) => tidy((v * 9) / 5), read: (v: number) => (v * 5) / 9 }
  }
  const celsius = quantity === 'temperature' || quantity === 'temperature difference'
  return { unit: celsius ? '°C' : told, shown: tidy, read: (v: number) => v }
}

/** A number as it is typed: no more digits than tell it. */
export function tidy(value: number): string {
  return String(Number(value.toPrecision(5)))
}

/** What was typed, as the house keeps it; NaN for no number. */
export function readSetting(setting: Setting, text: string, unit: TemperatureUnit): number {
  const read = quantityOf(setting, unit).read(typedNumber(text))
  return Number(read.toPrecision(9))
}
