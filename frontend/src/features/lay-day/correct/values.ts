import type { Schemas } from '@/shared/api/client'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { fromCelsius, type TemperatureUnit, typedGrams, typedTemperature } from '@/shared/units'

export type LaidEgg = { x: number; y: number; slug: boolean; shell: string }

/** A clutch as typed, to correct it. */
export type LayValues = {
  dam: string
  sire: string
  laidAt: string
  count: string
  eggs: LaidEgg[]
  cabinet: string
  shelf: string
  setPoint: string
  medium: string
  dryMass: string
  water: string
  closing: string
}

export function valuesOf(clutch: Schemas['ClutchResponse'], unit: TemperatureUnit): LayValues {
  const box = clutch.boxes.find(({ name }) => name === clutch.box)
  return {
    dam: clutch.dam,
    sire: clutch.sire ?? '',
    laidAt: inputMoment(clutch.laid_at),
    count: clutch.count,
    eggs: clutch.eggs.map(({ x, y, slug, shell }) => ({ x, y, slug, shell })),
    cabinet: box?.cabinet ?? '',
    shelf: box?.shelf ?? '',
    setPoint: fromCelsius(clutch.set_point_at_lay_c, unit).toFixed(1),
    medium: box?.medium ?? '',
    dryMass: box?.dry_mass_g?.toString() ?? '',
    water: box?.water_g?.toString() ?? '',
    closing: box?.closing ?? '',
  }
}

/** The request of what was typed; grams left empty are not known, not zero. */
export function requestOf(values: LayValues, unit: TemperatureUnit): Schemas['LayDayRequest'] {
  const grams = (text: string) => (text.trim() ? typedGrams(text) : null)
  return {
    dam: values.dam,
    sire: values.sire.trim() || null,
    laid_at: fromInputMoment(values.laidAt),
    eggs: values.eggs as Schemas['LayDayRequest']['eggs'],
    cabinet: values.cabinet,
    shelf: values.shelf,
    set_point_c: Math.round(typedTemperature(values.setPoint, unit) * 1000) / 1000,
    medium: values.medium || null,
    dry_mass_g: grams(values.dryMass),
    water_g: grams(values.water),
    closing: (values.closing || null) as Schemas['Closing'] | null,
    second_clutch: false,
  }
}

/** Which field of the form a refused field of the request belongs to. */
export function fieldOf(field: string): keyof LayValues | undefined {
  const first = field.split('.')[0] ?? ''
  const names: Record<string, keyof LayValues> = {
    dam: 'dam',
    sire: 'sire',
    laid_at: 'laidAt',
    eggs: 'count',
    laid: 'count',
    slugs: 'count',
    count: 'count',
    cabinet: 'cabinet',
    shelf: 'shelf',
    set_point_c: 'setPoint',
    'set point': 'setPoint',
    medium: 'medium',
    dry_mass_g: 'dryMass',
    water_g: 'water',
    water: 'water',
    closing: 'closing',
  }
  return names[first]
}

export function countOf(eggs: LaidEgg[]): string {
  return `${eggs.length}-${eggs.filter((egg) => egg.slug).length}`
}
