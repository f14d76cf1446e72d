import { type EggLook, GRADE_WORDS } from '@/eggs/look'
import { chance } from '@/shared/chance'
import { counted } from '@/shared/counted'
import { percent } from '@/shared/units'
import type { Case, Told } from '../queries'

export const DECKS: Record<string, { name: string; about: string }> = {
  fresh: { name: 'Fresh eggs and slugs', about: 'The first week: is there an animal in it?' },
  dimples: { name: 'Is this dimple early?', about: 'Dents of their age, of a dry box, of death.' },
  mould: { name: 'Mould and smells', about: 'What comes of death, and what means nothing.' },
  last: { name: 'The last ten days', about: 'When the torch shows little and lids rain.' },
  pipping: { name: 'Pipping and stuck', about: 'To wait, or to help?' },
  mixed: { name: 'Mixed', about: 'Any of all of these.' },
}

export const deckName = (deck: string): string => DECKS[deck]?.name ?? deck

/** What can be done next, as it is chosen and told of. */
export const ACTS = [
  { value: 'leave', label: 'Leave it' },
  { value: 'candle', label: 'Candle later' },
  { value: 'water', label: 'Add water' },
  { value: 'air', label: 'Air the box' },
  { value: 'support', label: 'Support it' },
  { value: 'isolate', label: 'Isolate it' },
  { value: 'remove', label: 'Remove it' },
  { value: 'help', label: 'Help at the slit' },
] as const

export type Act = (typeof ACTS)[number]['value']

const AS_DONE: Record<string, string> = {
  leave: 'leave it',
  candle: 'candle it',
  water: 'add water',
  air: 'air the box',
  support: 'support it',
  isolate: 'isolate it',
  remove: 'remove it',
  help: 'help at the slit',
}

export const actWords = (act: string): string => AS_DONE[act] ?? act

/** The egg as it is drawn: what eyes see of it, and no more. */
export function lookOf(egg: Case): EggLook {
  return {
    number: egg.egg,
    grade: egg.grade,
    shells: egg.shell === 'smooth' ? [] : [egg.shell],
    wet: egg.wet !== 'dry',
    colour: egg.colour as NonNullable<EggLook['colour']>,
    ...(egg.mould === 'none' ? {} : { mould: egg.mould as NonNullable<EggLook['mould']> }),
    ...(egg.pipped_hours === null ? {} : { fate: 'pipped' as const }),
  }
}

/** What eyes, hand and nose tell of the egg, in few words each. */
export function signsOf(egg: Case): [string, string][] {
  const mould = egg.mould === 'none' ? 'none' : egg.mould === 'furry' ? 'furry' : `a ${egg.mould}`
  return [
    ['Dents', GRADE_WORDS[egg.grade] ?? ''],
    ['Shell', `${egg.shell}, ${egg.colour}, ${egg.wet}`],
    ['Mould', mould],
    ['Smell', egg.smell],
    ['In the hand', egg.feel],
    ...(egg.hangs ? [['Lies', 'high on the clump, over its rim'] as [string, string]] : []),
  ]
}

/** What its box shows. */
export function boxOf({ box, share }: Case): [string, string][] {
  const dented = box.neighbours.filter((grade) => grade > 0).length
  return [
    ['Neighbours', `${dented} of ${box.neighbours.length} dented`],
    ['Medium', `${box.medium}, ${box.feels}`],
    ['Closing', box.closing],
    ['Lid', box.lid === 'none' ? 'no water under it' : `water: ${box.lid}`],
    ['On the scale', box.short_g < 1 ? 'as at set-up' : `${Math.round(box.short_g)} g short`],
    ['Developed', percent(Math.min(share, 1))],
  ]
}

/** Hours since the first pip, where there was one. */
export function pipsOf(egg: Case): string | null {
  if (egg.pipped_hours !== null) {
    return `Pipped ${counted(egg.pipped_hours, 'hour')} ago. Siblings are out.`
  }
  if (egg.first_pip_hours !== null) {
    return `Its siblings are out; the first pipped ${counted(egg.first_pip_hours, 'hour')} ago. This one is closed.`
  }
  return null
}

export function earlierOf({ earlier }: Case): string[] {
  return earlier.map(({ day, grade, vessels, mould, smell }) => {
    const said = [
      vessels && `${vessels === 'none' ? 'no' : vessels} vessels`,
      grade > 0 && GRADE_WORDS[grade],
      mould !== 'none' && `mould: ${mould}`,
      smell !== 'none' && `smells ${smell}`,
    ].filter(Boolean)
    return `Day ${day}: ${said.join(', ') || 'nothing to note'}`
  })
}

/** How the learner's chance fared, in one line. */
export function chanceTold({ judged, alive, opinion }: Told): string {
  const own = `You said ${percent(judged.chance_percent / 100)}`
  return `${own}, Sandboa would have said ${chance(opinion.alive)}. It was ${alive ? 'alive' : 'dead'}.`
}
