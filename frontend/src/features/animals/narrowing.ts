import type { Schemas } from '@/shared/api/client'
import type { Facet } from '@/shared/many/narrowing'
import type { Asked, Order } from '@/shared/many/useNarrowing'
import { traitsInWords } from '@/shared/traits'

export type Animal = Schemas['AnimalResponse']

/** Where an animal stands in its season; the order is what calls for somebody first. */
const STANDINGS = {
  look: 'Look at her',
  lays: 'Prepare for laying',
  mate: 'With a mate',
  after: 'After laying',
  eggs: 'Eggs in a box',
  retired: 'Retired',
  left: 'Left the house',
} as const

export type StandingKey = keyof typeof STANDINGS

const KEYS = Object.keys(STANDINGS) as StandingKey[]

/** What is known of the animals besides what is recorded of each. */
export type Around = {
  season: Schemas['LaySeasonResponse']
  after: Schemas['AfterLayingResponse'][]
  /** Codes of clutches in boxes now. */
  codes: ReadonlySet<string>
}

/** Where each animal stands, by its id. */
export function standingsOf(animals: Animal[], around: Around): Map<number, StandingKey[]> {
  const seasons = new Map(around.season.dams.map((dam) => [dam.dam, dam]))
  const after = new Map(around.after.map((dam) => [dam.dam, dam]))
  return new Map(
    animals.map((animal) => {
      const season = seasons.get(animal.id)
      const recovering = after.get(animal.id)
      const so: Record<StandingKey, boolean | undefined> = {
        look: recovering && recovering.flags.length > 0,
        lays: season?.laying || season?.preparations.some(({ due }) => due),
        mate: season?.pairings.some(({ until }) => !until),
        after: recovering !== undefined,
        eggs: season?.clutches.some(({ code }) => around.codes.has(code)),
        retired: animal.retired && !animal.departure,
        left: animal.departure !== null,
      }
      return [animal.id, KEYS.filter((key) => so[key])]
    }),
  )
}

export const inWords = (standings: StandingKey[]) =>
  standings.map((standing) => STANDINGS[standing].toLowerCase()).join(', ')

/** How animals are narrowed. */
export function narrowingOf(standings: Map<number, StandingKey[]>): Asked<Animal> {
  const of = ({ id }: Animal) => standings.get(id) ?? []
  const facets: Facet<Animal>[] = [
    {
      key: 'now',
      legend: 'Now',
      alone: true,
      valuesOf: of,
      words: (value) => STANDINGS[value as StandingKey] ?? value,
    },
    {
      key: 'role',
      legend: 'Role',
      valuesOf: ({ role }) => [role],
      words: (role) => (role === 'dam' ? 'Dams' : 'Sires'),
    },
  ]
  const rank = (animal: Animal) => {
    const ranks = of(animal).map((standing) => KEYS.indexOf(standing))
    return ranks.length > 0 ? Math.min(...ranks) : KEYS.indexOf('retired') - 0.5
  }
  const orders: Order<Animal>[] = [
    { value: 'name', label: 'By name', sort: (all) => all },
    {
      value: 'needs',
      label: 'What needs somebody first',
      sort: (all) => [...all].sort((a, b) => rank(a) - rank(b)),
    },
    {
      value: 'weighed',
      label: 'Longest not weighed first',
      sort: (all) =>
        [...all].sort((a, b) => (a.weighed_at ?? '').localeCompare(b.weighed_at ?? '')),
    },
    {
      value: 'light',
      label: 'Lightest first',
      sort: (all) => [...all].sort((a, b) => (a.mass_g ?? 1e9) - (b.mass_g ?? 1e9)),
    },
  ]
  return {
    facets,
    orders,
    inOrder: { now: KEYS },
    textOf: (animal) => `${animal.name} ${animal.code ?? ''} ${traitsInWords(animal)}`,
  }
}
