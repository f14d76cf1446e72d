import type { Schemas } from '@/shared/api/client'

export type LayDay = Schemas['LayDayResponse']
export type State = Schemas['LayDayState']
export type Egg = Schemas['EggState']
export type Step = Schemas['Step']

/** What each step is called, on its screen and in the list of steps. */
export const STEP_TITLES: Record<Step, string> = {
  prepare: 'Get everything ready',
  dam: 'Move the dam, look at her',
  marks: 'Mark every top',
  count: 'Count',
  places: 'Eggs where they lie',
  eggs: 'Each egg by torchlight',
  turning: 'Disc not on top',
  handling: 'Clump and mishaps',
  box: 'The box',
  shelf: 'Onto the shelf',
  card: 'Card',
  aftercare: 'The dam afterwards',
}

/** What she who keeps her eggs is spared, and where she then is. */
const OF_HER_OWN: Partial<Record<Step, string>> = {
  dam: 'Look at her',
  shelf: 'Her tub',
}

/** What a step of a lay day is called: a dam that keeps her eggs is not moved. */
export function titleOf(step: Step, state: State): string {
  const own = state.method.dam === 'maternal incubation' ? OF_HER_OWN[step] : undefined
  return own ?? STEP_TITLES[step]
}

/** Steps that come after the clutch is recorded. */
export const AFTER_RECORDING: Step[] = ['card', 'aftercare']

/** The step before or after another one; undefined at the ends. */
export function beside(steps: Step[], step: Step, by: 1 | -1): Step | undefined {
  const at = steps.indexOf(step)
  return at < 0 ? steps[0] : steps[at + by]
}

/** The eggs with one of them changed; `number` counts from 1. */
export function withEgg(eggs: Egg[], number: number, changed: Partial<Egg>): Egg[] {
  return eggs.map((egg, i) => (i === number - 1 ? { ...egg, ...changed } : egg))
}

/** The first egg whose screen has not been answered, from 1; the last when all have. */
export function nextToLook(eggs: Egg[]): number {
  const open = eggs.findIndex((egg) => !egg.looked)
  return open < 0 ? eggs.length : open + 1
}

/** Whether the egg had an event of that kind. */
export function happened(egg: Egg, kind: Schemas['EggEvent']): boolean {
  return egg.events.some((event) => event.kind === kind)
}

/** The egg's events with one kind added now, or taken out. */
export function withEvent(egg: Egg, kind: Schemas['EggEvent'], on: boolean, now: string): Egg {
  const others = egg.events.filter((event) => event.kind !== kind)
  return { ...egg, events: on ? [...others, { kind, at: now }] : others }
}

/**
 * Eggs `a` and `b` stick together, or no longer: sticking joins whole groups, and an egg
 * that lets go leaves its group. A group of one is none.
 */
export function withClump(eggs: Egg[], a: number, b: number, together: boolean): Egg[] {
  const [one, other] = [eggs[a - 1], eggs[b - 1]]
  if (!one || !other) return eggs
  let next: Egg[]
  if (together) {
    const group = one.clump ?? other.clump ?? freeGroup(eggs)
    const joined = [one.clump, other.clump].filter((g) => g != null)
    next = eggs.map((egg, i) =>
      i === a - 1 || i === b - 1 || (egg.clump != null && joined.includes(egg.clump))
        ? { ...egg, clump: group }
        : egg,
    )
  } else {
    next = withEgg(eggs, b, { clump: null })
  }
  return next.map((egg) =>
    egg.clump != null && next.filter((e) => e.clump === egg.clump).length < 2
      ? { ...egg, clump: null }
      : egg,
  )
}

function freeGroup(eggs: Egg[]): number {
  let group = 1
  while (eggs.some((egg) => egg.clump === group)) group += 1
  return group
}

/** The box an egg goes to with a tap: the next of `boxes`, the first after the last. */
export function movedOn(egg: Egg, boxes: number): number {
  return ((egg.box ?? 0) + 1) % boxes
}

/** The eggs shared out over `boxes`, as evenly as it goes and each where its neighbours are. */
export function spread(eggs: Egg[], boxes: number): Egg[] {
  return eggs.map((egg, i) => ({ ...egg, box: Math.floor((i * boxes) / eggs.length) }))
}

/** One of the boxes is not taken after all: its eggs go into the first, later boxes move up. */
export function oneBoxLess(eggs: Egg[], gone: number): Egg[] {
  return eggs.map((egg) => {
    const box = egg.box ?? 0
    return { ...egg, box: box === gone ? 0 : box > gone ? box - 1 : box }
  })
}

/** "7-2" */
export function countOf(eggs: Egg[]): string {
  return `${eggs.length}-${eggs.filter((egg) => egg.slug).length}`
}

/** What a step is given: the lay day, how to change it, and the ways on and back. */
export type StepProps = {
  day: LayDay
  step: Step
  back: Step | undefined
  change: (changed: Partial<State>) => void
  /** The same, settled when it is kept. */
  keep: (changed: Partial<State>) => Promise<unknown>
  /** Save and go on to the next step. */
  next: (changed?: Partial<State>) => void
}
