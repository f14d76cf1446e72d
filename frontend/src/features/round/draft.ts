import type { Schemas } from '@/shared/api/client'
import { eggRef, nameOfRef } from '@/shared/eggNames'
import { boxOf, newVisitKey, type Visit } from '@/shared/offline/visit'
import { typedGrams } from '@/shared/units'

type Egg = Schemas['EggResponse']
export type SignKind = Schemas['SignKind']

/** What was tapped of one egg at this visit; only what differs from before. */
export type EggDraft = {
  grade?: number | undefined
  vessels?: Schemas['Vessels'] | undefined
  /** Where the disc lay; kept with the vessels of a visit that is put right. */
  disc?: Schemas['Disc'] | undefined
  /** All the marks of its shell now, where they changed. */
  shells?: Schemas['Shell'][] | undefined
  signs: Partial<Record<SignKind, string>>
  acts: Schemas['EggActKind'][]
  /** Grams of an egg that is taken out, as typed. */
  mass?: string | undefined
}

/** The box an egg was put into: one that is there, or a new one. */
export type Target = { to: string } | { name: string; kind: 'incubation' | 'hatching' }

/** An open box: everything tapped so far. Numbers stay as they were typed. */
export type Draft = {
  key: string
  box: string
  openedAt: string
  /** When it was shut, where that is told rather than happening: entered late, or put right. */
  closedAt: string | null
  seenAct: number
  /** By what eggs are called in the box. */
  eggs: Record<string, EggDraft>
  moves: Record<string, Target>
  signs: Partial<Record<'lid' | 'medium' | 'weight' | 'smell' | 'pests', string>>
  mass: string
  water: string
  acts: Schemas['BoxActKind'][]
  closing: Schemas['Closing'] | null
  shelf: { cabinet: string; shelf: string } | null
  /** Grams put in (+) or taken out (-) besides water, as typed. */
  change: string
  /** Medium swapped; null while the old one stays. */
  fresh: { medium: string; water: string; mass: string } | null
  /** Plain words on the visit. */
  note: string
}

/** Changes an open box; told as what becomes of it, so that nothing is drawn again for its sake. */
export type ChangeDraft = (change: (draft: Draft) => Draft) => void

/** A box opened now, or entered for the `moment` at which it was. */
export function openBox(
  box: Schemas['RoundBoxResponse'],
  now: Date,
  moment: string | null = null,
): Draft {
  return {
    key: newVisitKey(),
    box: box.name,
    openedAt: moment ?? now.toISOString(),
    closedAt: moment,
    seenAct: box.seen_act,
    eggs: {},
    moves: {},
    signs: {},
    mass: '',
    water: '',
    acts: [],
    closing: null,
    shelf: null,
    change: '',
    fresh: null,
    note: '',
  }
}

/** One and the same for every egg that nothing was tapped of. */
const AS_BEFORE: EggDraft = { signs: {}, acts: [] }

export function eggOf(draft: Draft, name: string): EggDraft {
  return draft.eggs[name] ?? AS_BEFORE
}

/** The draft with one egg changed; an egg with nothing left to say is no exception any more. */
export function withEgg(draft: Draft, name: string, change: Partial<EggDraft>): Draft {
  const egg = { ...eggOf(draft, name), ...change }
  const { [name]: _, ...others } = draft.eggs
  return { ...draft, eggs: saysSomething(egg) ? { ...others, [name]: egg } : others }
}

function saysSomething(egg: EggDraft): boolean {
  return (
    egg.grade !== undefined ||
    egg.vessels !== undefined ||
    egg.shells !== undefined ||
    egg.acts.length > 0 ||
    Object.keys(egg.signs).length > 0
  )
}

/** A sign set, or taken back when it was tapped again. */
export function withSign(draft: Draft, name: string, kind: SignKind, value: string): Draft {
  const { [kind]: held, ...others } = eggOf(draft, name).signs
  return withEgg(draft, name, { signs: held === value ? others : { ...others, [kind]: value } })
}

/** Every egg that can be graded with one grade; those told apart before are told anew. */
export function withAllGraded(draft: Draft, eggs: Egg[], grade: number): Draft {
  return eggs
    .filter((egg) => gradable(egg) && !draft.moves[egg.name])
    .reduce((all, egg) => withEgg(all, egg.name, { grade }), draft)
}

const gradable = (egg: Egg): boolean => !egg.slug && !egg.removed_at && !egg.pipped_at

/** The egg as it is with what was tapped just now; one put into another box is gone from here. */
export function seenNow(egg: Egg, draft: EggDraft, moved?: Target): Egg {
  return {
    ...egg,
    grade: draft.grade ?? egg.grade,
    excess: draft.grade === undefined ? egg.excess : Math.max(0, draft.grade - egg.allowed_grade),
    signs: { ...egg.signs, ...(draft.signs as Record<string, string>) },
    shells: draft.shells ?? egg.shells,
    events: [...egg.events, ...draft.acts],
    removed_at: moved || draft.acts.includes('removed') ? 'now' : egg.removed_at,
  }
}

/** Whether there is anything to record besides "as before". */
export function exceptions(draft: Draft): number {
  return new Set([...Object.keys(draft.eggs), ...Object.keys(draft.moves)]).size
}

/** Grams as typed, null when nothing was; NaN for what is no number. */
export function grams(text: string): number | null {
  return text.trim() === '' ? null : typedGrams(text)
}

/** What is to be added to a box that weighs `mass`, by the list the house gave along. */
export function topUpFor(
  steps: Schemas['TopUpStepResponse'][],
  mass: number | null,
): Schemas['TopUpStepResponse'] | undefined {
  if (mass === null || Number.isNaN(mass)) return undefined
  return steps.find((step) => mass >= step.from_g)
}

/** Grams that can be, as the house has them; null where nobody knows. */
export type Limits = { heaviest: number | null; poured: [number, number] | null }

/** What keeps the visit from being closed, in words, at its field; null when nothing does. */
export function wrongWith(
  draft: Draft,
  { heaviest, poured }: Limits,
): { field: 'mass' | 'water' | 'egg' | 'change' | 'fresh'; words: string } | null {
  const [mass, water] = [grams(draft.mass), grams(draft.water)]
  if (Object.values(draft.eggs).some((egg) => Number.isNaN(grams(egg.mass ?? '')))) {
    return { field: 'egg', words: 'Grams as a number, like 82.' }
  }
  if (Number.isNaN(mass)) return { field: 'mass', words: 'Grams as a number, like 1134.' }
  if (mass !== null && heaviest !== null && mass > heaviest) {
    return {
      field: 'mass',
      words: 'That is more than the box had at set-up: check the scale, or what was put in since.',
    }
  }
  if (Number.isNaN(grams(draft.change))) {
    return { field: 'change', words: 'Grams as a number, like -12 or 30.' }
  }
  const { fresh } = draft
  if (fresh && [fresh.water, fresh.mass].some((text) => Number.isNaN(grams(text)))) {
    return { field: 'fresh', words: 'Grams as a number, like 200.' }
  }
  if (Number.isNaN(water)) return { field: 'water', words: 'Grams as a number, like 45.' }
  if (water !== null && poured && (water < poured[0] || water > poured[1])) {
    const words = `Water added is ${poured[0]} to ${poured[1]} g; leave it empty for none.`
    return { field: 'water', words }
  }
  return null
}

/** The visit for another moment; how long the door was open is not known then. */
export function seenAt(draft: Draft, moment: string | null, now: Date): Draft {
  return { ...draft, openedAt: moment ?? now.toISOString(), closedAt: moment }
}

/** The visit as the house takes it. */
export function visitOf(draft: Draft, now: Date): Visit {
  return {
    key: draft.key,
    box: draft.box,
    opened_at: draft.openedAt,
    closed_at: draft.closedAt ?? now.toISOString(),
    by_hand: draft.closedAt !== null,
    seen_act: draft.seenAct,
    rest_as_before: true,
    eggs: Object.entries(draft.eggs).map(([name, egg]) => ({
      ...eggRef(name),
      grade: egg.grade ?? null,
      vessels: egg.vessels ?? null,
      disc: egg.vessels ? (egg.disc ?? null) : null,
      shells: egg.shells ?? null,
      signs: Object.entries(egg.signs).map(([kind, value]) => ({ kind: kind as SignKind, value })),
      acts: egg.acts,
      mass_g: egg.acts.includes('removed') ? grams(egg.mass ?? '') : null,
    })),
    signs: Object.entries(draft.signs).map(([kind, value]) => ({
      kind: kind as keyof Draft['signs'],
      value,
    })),
    mass_g: grams(draft.mass),
    water_g: grams(draft.water),
    acts: draft.acts,
    closing: draft.closing,
    shelf: draft.shelf,
    mass_change_g: grams(draft.change),
    moved: movedOf(draft.moves),
    note: draft.note,
    fresh: draft.fresh && {
      medium: draft.fresh.medium,
      water_g: grams(draft.fresh.water),
      mass_g: grams(draft.fresh.mass),
    },
  }
}

/** A visit the house refused, open again with what was tapped and when, under a new key. */
export function draftOf(visit: Visit): Draft {
  return {
    key: newVisitKey(),
    box: boxOf(visit),
    openedAt: visit.opened_at,
    closedAt: visit.closed_at,
    seenAct: visit.seen_act ?? 0,
    eggs: Object.fromEntries(
      (visit.eggs ?? []).map((egg) => [
        nameOfRef(egg),
        {
          ...(egg.grade != null && { grade: egg.grade }),
          ...(egg.vessels != null && { vessels: egg.vessels }),
          ...(egg.disc != null && { disc: egg.disc }),
          ...(egg.shells != null && { shells: egg.shells }),
          signs: Object.fromEntries((egg.signs ?? []).map(({ kind, value }) => [kind, value])),
          acts: egg.acts ?? [],
          ...(egg.mass_g != null && { mass: String(egg.mass_g) }),
        },
      ]),
    ),
    moves: Object.fromEntries(
      (visit.moved ?? []).flatMap(({ eggs, to, new: made }) =>
        eggs.map((egg) => [nameOfRef(egg), targetOf(to, made)]),
      ),
    ),
    signs: Object.fromEntries((visit.signs ?? []).map(({ kind, value }) => [kind, value])),
    mass: typed(visit.mass_g),
    water: typed(visit.water_g),
    acts: visit.acts ?? [],
    closing: visit.closing ?? null,
    shelf: visit.shelf ?? null,
    change: typed(visit.mass_change_g),
    note: visit.note ?? '',
    fresh: visit.fresh
      ? {
          medium: visit.fresh.medium,
          water: typed(visit.fresh.water_g),
          mass: typed(visit.fresh.mass_g),
        }
      : null,
  }
}

/** The eggs that go into each box, as the house takes them. */
function movedOf(moves: Draft['moves']): NonNullable<Visit['moved']> {
  const groups = new Map<string, { target: Target; eggs: string[] }>()
  for (const [name, target] of Object.entries(moves)) {
    const key = JSON.stringify(target)
    const group = groups.get(key) ?? { target, eggs: [] }
    groups.set(key, { target, eggs: [...group.eggs, name] })
  }
  return [...groups.values()].map(({ target, eggs }) => ({
    eggs: eggs.map(eggRef),
    ...('to' in target ? { to: target.to } : { new: { name: target.name, kind: target.kind } }),
  }))
}

function targetOf(
  to: string | null | undefined,
  made: Schemas['BoxRequest'] | null | undefined,
): Target {
  if (to != null) return { to }
  return { name: made?.name ?? '', kind: made?.kind === 'hatching' ? 'hatching' : 'incubation' }
}

/** An egg put into another box, or left where it is after all. */
export function withMove(draft: Draft, name: string, target: Target | null): Draft {
  const { [name]: _, ...others } = draft.moves
  return { ...draft, moves: target ? { ...others, [name]: target } : others }
}

function typed(grams: number | null | undefined): string {
  return grams == null ? '' : String(grams)
}
