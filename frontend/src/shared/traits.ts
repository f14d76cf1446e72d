import type { Schemas } from '@/shared/api/client'

type Trait = Schemas['TraitResponse']

/** "Desert Ghost, 1 copy of Puzzle, possibly Cypress", with the year of hatching before it. */
export function traitsInWords(animal: { hatch_year: number | null; traits: Trait[] }): string {
  const traits = animal.traits.map((trait) => {
    if (trait.form === 'one copy') return `1 copy of ${trait.name}`
    if (trait.form === 'two copies') return `2 copies of ${trait.name}`
    return trait.form === 'possible' ? `possibly ${trait.name}` : trait.name
  })
  const year = animal.hatch_year ? [`hatched ${animal.hatch_year}`] : []
  return [...year, ...traits].join(', ')
}
