import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query'
import { useLiveQuery } from 'dexie-react-hooks'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { store } from '@/shared/offline/store'
import { developed } from '@/shared/units'
import type { Draft, Limits } from './draft'

export type Round = Schemas['RoundResponse']
export type RoundBox = Schemas['RoundBoxResponse']

/** Every box as the phone carries it; without a network, as it was last read. */
export const roundQuery = queryOptions({
  queryKey: ['round'],
  queryFn: () => answer(api.GET('/api/round')),
})

/** Every box as it was at a moment of the past, for what is entered late. */
export const roundThenQuery = (at: string) =>
  queryOptions({
    queryKey: ['round', at],
    queryFn: () => answer(api.GET('/api/round', { params: { query: { at } } })),
    // While the time is typed, what was shown before stays.
    placeholderData: keepPreviousData,
  })

/** The round now, or as it was at a moment. */
export const useRound = (at: string | null) => {
  const now = useQuery({ ...roundQuery, enabled: at === null })
  const then = useQuery({ ...roundThenQuery(at ?? ''), enabled: at !== null })
  return at === null ? now : then
}

/** What a box can weigh and be given at most. */
export function useLimits(box: RoundBox): Limits {
  const poured = useRules().data?.poured_g
  return { heaviest: box.heaviest_g, poured: (poured as [number, number] | undefined) ?? null }
}

/** Boxes left open on this device. */
export function useOpenCodes(): string[] {
  return useLiveQuery(() => store.openBoxes.toCollection().primaryKeys()) ?? []
}

export function keepOpen(draft: Draft) {
  return store.openBoxes.put({ code: draft.box, draft })
}

/** What was tapped at a box before; a box left open by an earlier version is one of its clutch. */
export async function openDraft(name: string): Promise<Draft | undefined> {
  const held = (await store.openBoxes.get(name))?.draft as Draft | undefined
  return (
    held && {
      ...held,
      box: name,
      moves: held.moves ?? {},
      closedAt: held.closedAt ?? null,
      note: held.note ?? '',
    }
  )
}

/** The boxes to open now: those with a reason, but not those a visit to is on its way. */
export function boxesDue(boxes: RoundBox[], closed: string[]): RoundBox[] {
  return boxes.filter((box) => box.due.length > 0 && !closed.includes(box.name))
}

/** The box to open after this one: the next on the way round, so that no cabinet is opened twice. */
export function nextDue(boxes: RoundBox[], closed: string[], name: string): RoundBox | undefined {
  const here = boxes.findIndex((box) => box.name === name)
  const onTheWay = [...boxes.slice(here + 1), ...boxes.slice(0, Math.max(here, 0))]
  return boxesDue(onTheWay, closed)[0]
}

/** How far the eggs in a box are: "day 26, 45 %", by clutch where there are several. */
export function stagesOf({ clutches }: RoundBox): string {
  return clutches
    .map(({ code, day, fraction }) => {
      const stage = `day ${day}, ${developed(fraction)}`
      return clutches.length > 1 ? `${code} ${stage}` : stage
    })
    .join('; ')
}
