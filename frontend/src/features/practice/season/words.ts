import type { EggLook } from '@/eggs/look'
import type { KeptBox, KeptEgg } from '../queries'

export const DIFFICULTIES = [
  { value: 'gentle', label: 'Gentle', note: 'one thing goes wrong' },
  { value: 'usual', label: 'Usual', note: 'a few do' },
  { value: 'hard', label: 'Hard', note: 'much does' },
] as const

/** Rhythms a learner may keep to; the house tells which boxes are due by them. */
export const SCHOOLS = [
  { value: '', label: 'As I like' },
  { value: 'set and forget', label: 'Set and forget' },
  { value: 'weekly', label: 'Weekly' },
  { value: 'every two days', label: 'Every two days' },
] as const

export type School = (typeof SCHOOLS)[number]['value']

export type Difficulty = (typeof DIFFICULTIES)[number]['value']

/** What can be done at an opened box. */
export const AT_BOX = [
  ['weigh', 'Weigh'],
  ['wipe', 'Wipe the lid'],
  ['air', 'Air it'],
  ['holes', 'Add a hole'],
] as const

/** What can be done with one of its eggs. */
export const AT_EGG = [
  ['candle', 'Candle'],
  ['support', 'Support'],
  ['isolate', 'Isolate'],
  ['help', 'Help at the slit'],
  ['remove', 'Remove'],
] as const

const DONE: Record<string, string> = {
  pour: 'water added',
  wipe: 'lid wiped',
  air: 'aired',
  holes: 'a hole added',
  candle: 'candled',
  support: 'supported',
  isolate: 'isolated',
  help: 'helped at the slit',
  remove: 'removed',
  mend: 'the cabinet seen to',
  open: 'opened',
}

/** "Box 2, water added 3 times": a choice, as the telling names it. */
export function choiceWords(what: string, box: string | null, times: number): string {
  const often = times === 1 ? 'once' : `${times} times`
  return `${box ? `${box}: ` : ''}${DONE[what] ?? what} ${often}`
}

/** "2 more hatched", "1 fewer hatched", "no egg more or less". */
export function worthWords(worth: number): string {
  if (worth === 0) return 'no egg more or less'
  return worth > 0 ? `${worth} more hatched` : `${-worth} fewer hatched`
}

/** An egg of a kept season as it was seen last. */
export function keptLook(egg: KeptEgg): EggLook {
  return {
    number: egg.number,
    grade: egg.grade,
    wet: egg.wet !== 'dry',
    colour: egg.colour as NonNullable<EggLook['colour']>,
    ...(egg.mould === 'none' ? {} : { mould: egg.mould as NonNullable<EggLook['mould']> }),
    ...fateOf(egg),
  }
}

function fateOf(egg: KeptEgg): Pick<EggLook, 'fate'> {
  if (egg.out) return { fate: 'out' }
  if (egg.removed) return { fate: 'removed' }
  return egg.pipped ? { fate: 'pipped' } : {}
}

/** What is known of a box, in one line: "lid raining, 46 g short, smells off". */
export function boxWords(box: KeptBox): string {
  return [
    box.lid === 'none' ? 'no water under the lid' : `lid: ${box.lid}`,
    box.feels && `medium ${box.feels}`,
    box.short_g !== null && shortWords(box.short_g),
    box.smell && box.smell !== 'none' && `smells ${box.smell}`,
  ]
    .filter(Boolean)
    .join(', ')
}

function shortWords(short: number): string {
  const grams = Math.round(short)
  if (Math.abs(grams) < 2) return 'weighs as at set-up'
  return grams > 0 ? `${grams}\u00a0g short` : `${-grams}\u00a0g over`
}
