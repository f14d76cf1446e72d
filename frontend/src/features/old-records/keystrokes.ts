/**
 * What is typed into a line of cards: as few keys as tell it, and on to the next field as soon as
 * nothing more could follow. Days are ISO, like 2019-06-12.
 */
import { addDays, differenceInCalendarDays, format, isValid, parse, parseISO } from 'date-fns'

/** A field as typed: how it is to stand, what it tells, and whether anything could still follow. */
export type Typed = { text: string; told: string | null; done: boolean }

/** Days from lay to pip of most clutches: a day of the month is taken for the nearest to it. */
const USUAL_DAYS = 58
/** From which number on it counts days after laying, and no day of a month any more. */
const DAYS_FROM = 40

/** "1206", "126", "12.6" or, month first, "612"; of the year chosen unless it says its own. */
export function typedDay(text: string, year: number, monthFirst: boolean): Typed {
  const open = { text, told: null, done: false }
  const parts = text.split(/[./ -]+/).filter(Boolean)
  if (parts.some((part) => !/^\d+$/.test(part))) return open
  if (/^\d{4}-/.test(text)) return { ...open, told: iso(text) }
  if (parts.length > 1) return { ...open, told: fromParts(parts, year, monthFirst) }
  const digits = parts[0] ?? ''
  const most = monthFirst ? 12 : 31
  for (const [first, second] of splits(digits, most)) {
    const told = fromParts([first, second], year, monthFirst)
    // 12 is the 1st of February, or the beginning of the 12th of any month.
    const mayGoOn = digits.length === 2 && Number(digits) <= most
    const full = second.length === 2 || Number(second) * 10 > (monthFirst ? 31 : 12)
    if (told) return { text, told, done: full && !mayGoOn }
  }
  return open
}

/** "72" is 7-2: nothing lays so many; "10" may be ten eggs, or 10-… with more to come. */
export function typedCount(text: string, mostEggs: number): Typed {
  const [eggs, slugs] = eggsAndSlugs(text, mostEggs)
  if (eggs < 1 || eggs > mostEggs) return { text, told: null, done: false }
  if (slugs === null) return { text, told: text, done: false }
  const shown = `${eggs}-${slugs}`
  if (slugs === '' || Number(slugs) > eggs) return { text: shown, told: null, done: false }
  return { text: shown, told: shown, done: slugs === '0' || Number(slugs) * 10 > eggs }
}

/** The eggs, 0 for none that can be read, and what is typed of the slugs: null before any is. */
function eggsAndSlugs(text: string, mostEggs: number): [number, string | null] {
  const written = /^(\d{1,2})[-/ ](\d{0,2})$/.exec(text)
  if (written) return [Number(written[1]), written[2] ?? '']
  if (!/^\d{1,4}$/.test(text)) return [0, null]
  if (Number(text) <= mostEggs) return [Number(text), null]
  const length = text.length > 2 && Number(text.slice(0, 2)) <= mostEggs ? 2 : 1
  return [Number(text.slice(0, length)), text.slice(length)]
}

/** Eggs that hatched, of the fertile ones of a count. */
export function typedHatched(text: string, count: string | null): Typed {
  const [eggs = 0, slugs = 0] = (count ?? '').split('-').map(Number)
  const number = /^\d{1,2}$/.test(text) ? Number(text) : Number.NaN
  const told = number <= eggs - slugs ? text : null
  return { text, told, done: told !== null && (number === 0 || number * 10 > eggs - slugs) }
}

/**
 * "58" is days after laying, "9" the day of the month next to when clutches usually pip; a date
 * may be written out.
 */
export function typedPip(text: string, laid: string | null, monthFirst: boolean): Typed {
  const open = { text, told: null, done: false }
  if (laid === null || text === '') return open
  const from = parseISO(laid)
  if (!/^\d{1,3}$/.test(text)) {
    const year = from.getFullYear()
    const told = typedDay(text, year, monthFirst).told
    // Laid in November, it pips in the year after.
    const next = told && told < laid ? typedDay(text, year + 1, monthFirst).told : told
    return { ...open, told: next }
  }
  const number = Number(text)
  if (number >= DAYS_FROM) {
    return { text, told: toIso(addDays(from, number)), done: true }
  }
  if (number < 1 || number > 31) return open
  const near = [...Array(62).keys()]
    .map((step) => addDays(from, USUAL_DAYS - 31 + step))
    .filter((day) => day.getDate() === number)
    .sort((a, b) => farFromUsual(a, from) - farFromUsual(b, from))
  const [day] = near
  return { text, told: day ? toIso(day) : null, done: text.length === 2 && number !== 10 }
}

/** The name that begins so: of those not yet named here this season first. */
export function completed(typed: string, names: string[], named: ReadonlySet<string>): string {
  const wanted = typed.trim().toLowerCase()
  if (!wanted) return ''
  const fits = names.filter((name) => name.toLowerCase().startsWith(wanted))
  return fits.find((name) => !named.has(name.toLowerCase())) ?? fits[0] ?? ''
}

/** Whether this browser's keeper writes the month before the day. */
export function writesMonthFirst(language: string): boolean {
  const parts = new Intl.DateTimeFormat(language).formatToParts(new Date(2019, 5, 12))
  const order = parts.map(({ type }) => type)
  return order.indexOf('month') < order.indexOf('day') && order.indexOf('year') > 0
}

function farFromUsual(day: Date, laid: Date): number {
  return Math.abs(differenceInCalendarDays(day, laid) - USUAL_DAYS)
}

/** A run of digits as two numbers: "1206" 12 and 06, "126" 12 and 6, "96" 9 and 6. */
function splits(digits: string, most: number): [string, string][] {
  if (digits.length < 2 || digits.length > 4) return []
  const cuts = digits.length === 4 ? [2] : [2, 1]
  return cuts
    .map((cut): [string, string] => [digits.slice(0, cut), digits.slice(cut)])
    .filter(([first, second]) => second !== '' && Number(first) >= 1 && Number(first) <= most)
}

function fromParts(parts: string[], year: number, monthFirst: boolean): string | null {
  const [first = '', second = '', own = String(year)] = parts
  if (!second || (own.length !== 2 && own.length !== 4)) return null
  const [day, month] = monthFirst ? [second, first] : [first, second]
  const full = own.length === 2 ? `20${own}` : own
  return iso(`${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`)
}

function iso(text: string): string | null {
  const day = parse(text, 'yyyy-MM-dd', new Date(0))
  return isValid(day) && text.length === 10 ? text : null
}

function toIso(day: Date): string {
  return format(day, 'yyyy-MM-dd')
}
