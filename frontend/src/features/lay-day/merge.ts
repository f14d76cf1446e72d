import type { Egg, State } from './steps'

/** Where two devices said different things: a line each, in words. */
export type Clash = { key: keyof State; what: string; here: string; there: string }

/** `taken` is what only the other device changed, in words. */
export type Merged = { state: State; clashes: Clash[]; taken: string[] }

const WORDS: Partial<Record<keyof State, string>> = {
  dam_mass_g: 'her weight',
  lump: 'the lump',
  laid_at: 'the lay time',
  handled_at: 'when they were handled',
  dry_mass_g: 'dry medium',
  water_g: 'water',
  set_up_mass_g: 'the whole box',
  code: 'the code',
  eggs: 'the number of eggs',
  method: 'the method',
  further: 'the further boxes',
  into: 'the box they go into',
}

/**
 * What was typed here and what another device saved meanwhile, put together: each from what both
 * began with. What only one of them changed is taken from it; what both changed differently stays
 * as it was typed here, and is told.
 */
export function merged(base: State, here: State, there: State): Merged {
  const clashes: Clash[] = []
  const taken: string[] = []
  const state: Record<string, unknown> = { ...there }
  for (const key of Object.keys({ ...there, ...here }) as (keyof State)[]) {
    if (key === 'eggs') continue
    const picked = pick(base[key], here[key], there[key])
    state[key] = picked.value
    if (picked.clash) clashes.push(clash(key, WORDS[key] ?? key, here[key], there[key]))
    else if (!same(picked.value, here[key])) {
      taken.push(`${WORDS[key] ?? key}: ${said(there[key])}`)
    }
  }
  state.eggs = mergedEggs(base.eggs, here.eggs, there.eggs, clashes)
  if (!same(state.eggs, here.eggs) && same(here.eggs, base.eggs)) taken.push('the eggs')
  return { state: state as State, clashes, taken }
}

function mergedEggs(base: Egg[], here: Egg[], there: Egg[], clashes: Clash[]): Egg[] {
  if (here.length !== there.length) {
    const picked = pick(base.length, here.length, there.length)
    if (picked.clash) clashes.push(clash('eggs', 'the number of eggs', here.length, there.length))
    return picked.value === here.length ? here : there
  }
  return here.map((egg, i) => {
    const [began, other] = [base[i] ?? egg, there[i] ?? egg]
    const both: Record<string, unknown> = { ...other }
    for (const key of Object.keys({ ...other, ...egg }) as (keyof Egg)[]) {
      const picked = pick(began[key], egg[key], other[key])
      both[key] = picked.value
      if (picked.clash) clashes.push(clash('eggs', `egg ${i + 1}, ${key}`, egg[key], other[key]))
    }
    return both as unknown as Egg
  })
}

function pick(base: unknown, here: unknown, there: unknown) {
  if (same(here, there) || same(there, base)) return { value: here, clash: false }
  if (same(here, base)) return { value: there, clash: false }
  return { value: here, clash: true }
}

function same(one: unknown, other: unknown): boolean {
  return JSON.stringify(one ?? null) === JSON.stringify(other ?? null)
}

function clash(key: keyof State, what: string, here: unknown, there: unknown): Clash {
  return { key, what, here: said(here), there: said(there) }
}

function said(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing'
  return typeof value === 'object' ? 'something else' : String(value)
}
