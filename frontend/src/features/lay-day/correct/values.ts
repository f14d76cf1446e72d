import type { Schemas } from '@/shared/api/client'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { fromCelsius, type TemperatureUnit, typedGrams, typedTemperature } from '@/shared/units'

/** An egg as laid; `box` is the name of the one it was laid into, none for an egg added now. */
export type LaidEgg = {
  x: number
  y: number
  slug: boolean
  shells: string[]
  box?: string | undefined
}

/** A clutch as typed, to correct it. */
export type LayValues = {
  dam: string
  sire: string
  code: string
  laidAt: string
  count: string
  eggs: LaidEgg[]
  /** The name of the box that is corrected. */
  box: string
  cabinet: string
  shelf: string
  setPoint: string
  medium: string
  dryMass: string
  water: string
  closing: string
}

export function valuesOf(clutch: Schemas['ClutchResponse'], unit: TemperatureUnit): LayValues {
  const laid = clutch.as_laid
  return {
    dam: clutch.dam,
    sire: clutch.sire ?? '',
    code: clutch.code,
    laidAt: inputMoment(clutch.laid_at),
    count: clutch.count,
    eggs: (laid.eggs as LaidEgg[]).map((egg, at) => ({ ...egg, box: laid.boxes[at] })),
    box: laid.box,
    cabinet: laid.cabinet,
    shelf: laid.shelf,
    setPoint: fromCelsius(clutch.set_point_at_lay_c, unit).toFixed(1),
    medium: laid.medium ?? '',
    dryMass: laid.dry_mass_g?.toString() ?? '',
    water: laid.water_g?.toString() ?? '',
    closing: laid.closing ?? '',
  }
}

/** The request of what was typed; grams left empty are not known, not zero. */
export function requestOf(values: LayValues, unit: TemperatureUnit): Schemas['LayDayRequest'] {
  const grams = (text: string) => (text.trim() ? typedGrams(text) : null)
  return {
    dam: values.dam,
    sire: values.sire.trim() || null,
    code: values.code.trim() || null,
    laid_at: fromInputMoment(values.laidAt),
    eggs: values.eggs.map(({ box: _, ...egg }) => egg) as Schemas['LayDayRequest']['eggs'],
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
    code: 'code',
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
