import { day, dayRange, fullDay } from '@/shared/dates'
import { traitsInWords } from '@/shared/traits'
import type { Hatchling, HatchlingLine } from './queries'

/** "61.5 g, female, 1 copy of Puzzle, yolk absorbed, kink" */
export function hatchlingInWords(hatchling: Hatchling): string {
  const latest = hatchling.weights.at(-1)
  const traits = traitsInWords({ hatch_year: null, traits: hatchling.traits })
  return [
    latest && `${latest.mass_g} g`,
    hatchling.sex,
    hatchling.size && hatchling.size !== 'usual' && hatchling.size,
    traits || (hatchling.plain && 'no trait shows'),
    hatchling.yolk && `yolk ${hatchling.yolk}`,
    ...hatchling.defects,
    hatchling.note,
  ]
    .filter(Boolean)
    .join(', ')
}

/** When it sheds and eats: as it was, or as it is likely to be. */
export function comesNext(hatchling: Hatchling): string {
  const { sheds, shed_window, meal_window, meals } = hatchling
  const first = sheds[0]
  if (!first && shed_window) {
    return `First shed likely ${dayRange(shed_window.p10, shed_window.p90)}; on damp paper until then.`
  }
  const shed = first ? [`Shed ${day(first)}.`] : []
  const taken = meals.filter((meal) => meal.taken)
  const refused = meals.length - taken.length
  if (taken.length === 0) {
    const tries = refused ? [`Refused ${refused} so far.`] : []
    const offer = meal_window
      ? [`Offer its first meal: mostly taken ${dayRange(meal_window.p10, meal_window.p90)}.`]
      : []
    return [...shed, ...offer, ...tries].join(' ')
  }
  const eaten = `${taken.length} ${taken.length === 1 ? 'meal' : 'meals'} taken, the last ${day(taken.at(-1)?.at ?? '')}.`
  return [...shed, eaten, ...(hatchling.settled ? ['Settled.'] : [])].join(' ')
}

/** "Hatchling 26-01/3" */
export const hatchlingTitle = ({ clutch, short_name }: { clutch: string; short_name: string }) =>
  `Hatchling ${clutch}/${short_name}`

/** What became of one that does not live here as a hatchling: "sold 4 June 2026". */
export function whereabouts(
  line: Pick<HatchlingLine, 'animal_name' | 'departure' | 'died'>,
): string {
  const { animal_name, departure, died } = line
  const left = departure && `${departure.how} ${fullDay(departure.at)}`
  const held = animal_name && `held back as ${animal_name}`
  return [held, left || (died && 'died')].filter(Boolean).join(', ')
}
