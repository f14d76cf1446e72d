import { type Typed, typedCount, typedDay, typedHatched, typedPip } from './keystrokes'
import type { Cells, PastClutch } from './queries'

/** The fields of a line in the order they are typed in. */
export const FIELDS = ['dam', 'sire', 'laid', 'count', 'hatched', 'first_pip'] as const
export type FieldName = (typeof FIELDS)[number]
export type Texts = Record<FieldName, string>

export const NOTHING: Texts = {
  dam: '',
  sire: '',
  laid: '',
  count: '',
  hatched: '',
  first_pip: '',
}

/** What the digits of a line tell. */
export type Told = Record<'laid' | 'count' | 'hatched' | 'first_pip', Typed>

export type Writing = { year: number; monthFirst: boolean; mostEggs: number }

export function toldBy(texts: Texts, { year, monthFirst, mostEggs }: Writing): Told {
  const laid = typedDay(texts.laid, year, monthFirst)
  const count = typedCount(texts.count, mostEggs)
  return {
    laid,
    count,
    hatched: typedHatched(texts.hatched, count.told),
    first_pip: typedPip(texts.first_pip, laid.told, monthFirst),
  }
}

/** The first field that has to be told and is not, or holds what cannot be read. */
export function firstOpen(texts: Texts, told: Told): FieldName | null {
  if (!texts.dam.trim()) return 'dam'
  if (told.laid.told === null) return 'laid'
  if (told.count.told === null) return 'count'
  if (texts.hatched && told.hatched.told === null) return 'hatched'
  if (texts.first_pip && told.first_pip.told === null) return 'first_pip'
  return null
}

export function cellsOf(texts: Texts, told: Told): Cells {
  const cells: Cells = {
    dam: texts.dam.trim(),
    sire: texts.sire.trim(),
    laid: told.laid.told ?? '',
    count: told.count.told ?? '',
    hatched: texts.hatched ? (told.hatched.told ?? '') : '',
    first_pip: told.first_pip.told ?? '',
  }
  return Object.fromEntries(Object.entries(cells).filter(([, text]) => text))
}

/** The sire a dam was with before, the latest first; else the one of the line above. */
export function offeredSire(dam: string, lines: Cells[], past: PastClutch[]): string {
  const same = (name: string | undefined) => name?.toLowerCase() === dam.trim().toLowerCase()
  const before = lines.find((line) => same(line.dam) && line.sire)?.sire
  const recorded = past.find((clutch) => same(clutch.dam) && clutch.sire)?.sire
  return before ?? recorded ?? lines[0]?.sire ?? ''
}
