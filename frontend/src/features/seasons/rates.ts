import { percent } from '@/shared/units'
import type { Group, Season } from './queries'

type Change = Season['dimensions'][number]['changes'][number]
type Rate = Season['hatched']

/** "18 of 20, 90 % (74 to 98)": the counts, the rate, and where it likely lies. */
export function rateWords(rate: Rate): string {
  if (rate.share === null) return 'nothing counted yet'
  const span = `${Math.round(100 * rate.low)} to ${Math.round(100 * rate.high)}`
  return `${rate.k} of ${rate.n}, ${percent(rate.share)} (${span})`
}

const expected = ({ like_for_like, drawn, rate }: Group): number =>
  like_for_like?.rate ?? drawn ?? rate.share ?? 1

/** Orders of many groups; the first is how the house lists them. */
export const orders = [
  { value: 'name', label: 'As listed', sort: (groups: Group[]) => groups },
  {
    value: 'most',
    label: 'Most eggs first',
    sort: (groups: Group[]) => [...groups].sort((a, b) => b.rate.n - a.rate.n),
  },
  {
    value: 'least',
    label: 'Least expected first',
    sort: (groups: Group[]) => [...groups].sort((a, b) => expected(a) - expected(b)),
  },
]

/** "71 % (55 to 84)": what to expect of a group, with where it likely lies. */
export function expectedWords({ rate, low, high }: NonNullable<Group['like_for_like']>): string {
  return `${percent(rate)} (${Math.round(100 * low)} to ${Math.round(100 * high)})`
}

/** "26-04, eggs 1, 2: perlite; from day 21 vermiculite": what changed while they developed. */
export function changeWords({ code, numbers, spells }: Change): string {
  const eggs = numbers.length === 1 ? `egg ${numbers[0]}` : `eggs ${numbers.join(', ')}`
  const lain = spells.map(({ name, from_day }, i) => (i ? `from day ${from_day} ${name}` : name))
  return `${code}, ${eggs}: ${lain.join('; ')}`
}

/** A group for the chart, in percent: its rate, the interval's ends, what to expect next. */
export type Whisker = { name: string; rate: number; span: [number, number]; drawn: number | null }

/** Height of the chart of these groups, rem: a line each, and the axis below. */
export function chartHeightRem(groups: Group[]): number {
  return 2.9 * whiskersOf(groups).length + 2.1
}

export function whiskersOf(groups: Group[]): Whisker[] {
  return groups
    .filter((group) => group.rate.share !== null)
    .map(({ name, rate, drawn, like_for_like }) => ({
      name,
      rate: 100 * (rate.share ?? 0),
      span: [100 * rate.low, 100 * rate.high],
      drawn: like_for_like ? 100 * like_for_like.rate : drawn === null ? null : 100 * drawn,
    }))
}

/** Where more of a sentence stands: a place, or a part of this one. */
export function linkOf(about: string): string {
  const [what, rest] = [about.split(' ')[0], about.split(' ').slice(1).join(' ')]
  if (what === 'losses') return rest ? `/losses/${rest}` : '/losses'
  if (about.startsWith('hatch rates')) {
    const dimension = about.replace('hatch rates', '').trim()
    return `#${dimension ? `by-${dimension}` : 'rates'}`
  }
  if (what === 'water') return '/round'
  return `#${what}`
}

/** Below this many eggs a chart of chances says little. */
const FEW = 50

/** How few they are, and what is known of the eggs that were alive that day. */
export function reliabilityWords({ eggs, alive }: Season['standings'][number]): string {
  const few = eggs < FEW ? `${eggs} eggs are few: the bars say how few. ` : ''
  if (!alive) return `${few}Whether they lived that day no pip or opening tells.`
  return `${few}Rings: alive that day, by ${alive.eggs} eggs whose pip or opening tells it; ${alive.came} were.`
}
