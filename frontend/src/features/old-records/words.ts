import type { Field, RecordKind } from './queries'

export const KINDS: [RecordKind, string][] = [
  ['clutches', 'clutches'],
  ['animals', 'animals'],
  ['weights', 'weights'],
  ['pairings', 'visits of sires'],
]

/** What each cell is called. */
export const CELLS: Record<Field, string> = {
  dam: 'dam',
  sire: 'sire',
  laid: 'day of laying',
  count: 'eggs-slugs, like 7-2',
  eggs: 'eggs laid',
  slugs: 'slugs',
  hatched: 'how many hatched',
  first_pip: 'day of the first pip',
  kept: 'kept at, about',
  code: 'code',
  name: 'name',
  role: 'dam or sire',
  hatch_year: 'year of hatching',
  traits: 'traits, in words',
  animal: 'animal',
  day: 'day',
  mass: 'weight',
  start: 'together from',
  end: 'together until',
  unused: 'not used',
}

const OF_KIND: Record<RecordKind, Field[]> = {
  clutches: [
    'dam',
    'sire',
    'laid',
    'count',
    'eggs',
    'slugs',
    'hatched',
    'first_pip',
    'kept',
    'code',
  ],
  animals: ['name', 'role', 'code', 'hatch_year', 'traits', 'dam', 'sire'],
  weights: ['animal', 'day', 'mass'],
  pairings: ['dam', 'sire', 'start', 'end'],
}

/** What a column of each kind of list can be used for. */
export const USES = Object.fromEntries(
  KINDS.map(([kind]) => [
    kind,
    (['unused', ...OF_KIND[kind]] as Field[]).map((field): [Field, string] => [
      field,
      CELLS[field],
    ]),
  ]),
) as Record<RecordKind, [Field, string][]>

/** The cells of a line that hold days. */
export const DAYS: ReadonlySet<Field> = new Set(['laid', 'first_pip', 'day', 'start', 'end'])
