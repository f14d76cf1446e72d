import { clockOf, fullMoment } from '@/shared/dates'
import { type TemperatureUnit, temperature } from '@/shared/units'

export type Fields = Record<string, unknown>
export type Whose = 'mine' | 'theirs'

/** A field that is not the same in two versions of a form; `path` is dotted where it is nested. */
export type Difference = { path: string; mine: unknown; theirs: unknown; suggested: Whose }

/**
 * Where two versions differ, of the fields the house tells of. What only somebody else
 * changed since `opened` is suggested as theirs, whatever was typed here as one's own.
 */
export function differences(opened: Fields, mine: Fields, theirs: Fields): Difference[] {
  const [before, own, other] = [flat(opened), flat(mine), flat(theirs)]
  return [...own.keys()]
    .filter((path) => other.has(path) || isNested(partOf(theirs, path)))
    .filter((path) => !same(own.get(path), other.get(path)))
    .map((path) => ({
      path,
      mine: own.get(path),
      theirs: other.get(path),
      suggested: before.has(path) && same(before.get(path), own.get(path)) ? 'theirs' : 'mine',
    }))
}

/** One's own version with theirs in the fields where that was chosen. */
export function merged<Body extends object>(
  mine: Body,
  theirs: Fields,
  chosen: Record<string, Whose>,
): Body {
  const other = flat(theirs)
  const whole = structuredClone(mine)
  for (const [path, whose] of Object.entries(chosen)) {
    if (whose === 'theirs') put(whole as Fields, path.split('.'), other.get(path))
  }
  return whole
}

/** A value as it is read: "31.5 °C", "12 Mar 2026, 14:05", "7-2", "Puzzle, one copy". */
export function inWords(path: string, value: unknown, unit: TemperatureUnit): string {
  if (isEmpty(value)) return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'number') return numberInWords(path, value, unit)
  if (typeof value === 'string') return isMoment(value) ? fullMoment(value) : value
  if (Array.isArray(value)) return isEggs(value) ? eggs(value) : value.map(item).join(', ')
  return JSON.stringify(value)
}

/** A number with the unit that its name ends in. */
function numberInWords(path: string, value: number, unit: TemperatureUnit): string {
  const ending = /_(c|min|g|l)$/.exec(path)?.[1]
  if (ending === 'c') return temperature(value, unit)
  if (ending === 'min') return clockOf(value)
  return ending ? `${value}\u00a0${ending}` : String(value)
}

/** "Dry mass" of "method.dry_mass_g", where a form has no better word. */
export function labelOf(path: string): string {
  const last = path.split('.').at(-1) ?? path
  const words = last.replace(/_(c|g|l|min|at)$/, '').replaceAll('_', ' ')
  return words.charAt(0).toUpperCase() + words.slice(1)
}

function flat(fields: Fields, before = ''): Map<string, unknown> {
  return new Map(
    Object.entries(fields).flatMap(([name, value]) =>
      isNested(value) ? [...flat(value, `${before}${name}.`)] : [[`${before}${name}`, value]],
    ) as [string, unknown][],
  )
}

function put(fields: Fields, [name = '', ...rest]: string[], value: unknown) {
  if (rest.length === 0) fields[name] = value
  else {
    fields[name] ??= {}
    put(fields[name] as Fields, rest, value)
  }
}

/** The nested part of a version that a dotted path leads into. */
function partOf(fields: Fields, path: string): unknown {
  const [first = '', ...rest] = path.split('.')
  return rest.length ? fields[first] : undefined
}

function isNested(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

function isEmpty(value: unknown): boolean {
  return (
    value === null ||
    value === undefined ||
    value === '' ||
    (Array.isArray(value) && value.length === 0)
  )
}

function same(one: unknown, other: unknown): boolean {
  if (isEmpty(one) || isEmpty(other)) return isEmpty(one) && isEmpty(other)
  if (isMoment(one) && isMoment(other)) return fullMoment(one) === fullMoment(other)
  return JSON.stringify(ordered(one)) === JSON.stringify(ordered(other))
}

/** Objects with their fields in one order; lists keep theirs. */
function ordered(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(ordered)
  if (!isNested(value)) return value
  return Object.fromEntries(
    Object.keys(value)
      .sort()
      .map((name) => [name, ordered(value[name])]),
  )
}

function isMoment(value: unknown): value is string {
  return typeof value === 'string' && /^\d{4}-\d\d-\d\dT/.test(value)
}

type Egg = { slug: boolean; shells: string[] }

function isEggs(list: unknown[]): list is Egg[] {
  return list.every((one) => isNested(one) && 'slug' in one)
}

function eggs(list: Egg[]): string {
  const told = list.flatMap((egg, index) =>
    egg.slug || egg.shells.length > 0
      ? [`${index + 1} ${egg.slug ? 'slug' : egg.shells.join(' and ')}`]
      : [],
  )
  const count = `${list.length}-${list.filter((egg) => egg.slug).length}`
  return told.length ? `${count} (${told.join(', ')})` : count
}

function item(one: unknown): string {
  return isNested(one) ? Object.values(one).join(', ') : String(one)
}
