import { useSearchParams } from 'react-router'
import { type Chosen, type Count, countsOf, type Facet, narrowed } from './narrowing'

export type Order<T> = { value: string; label: string; sort: (items: T[]) => T[] }

export type Asked<T> = {
  /** Of so many items none is left out, whatever the address says: they are seen at a glance. */
  glance?: number
  facets: readonly Facet<T>[]
  /** The first is how items come. */
  orders?: readonly Order<T>[]
  textOf?: (item: T) => string
  /** Values of a facet in their own order, by its key. */
  inOrder?: Readonly<Record<string, readonly string[]>>
}

export type Narrowing<T> = {
  items: T[]
  /** Whether there are more than are seen at a glance. */
  many: boolean
  chosen: Chosen
  /** What was typed; null where nothing can be. */
  typed: string | null
  order: string
  orders: readonly Order<T>[]
  facets: { key: string; legend: string; alone: boolean; counts: Count[] }[]
  /** Whether anything is left out. */
  narrow: boolean
  choose: (key: string, value: string | undefined) => void
  type: (words: string) => void
  orderBy: (order: string) => void
  clear: () => void
}

/** More items than this are counted, narrowed and ordered, where a place says no other number. */
const GLANCE = 12

/** Names in the address that are no facet: what was typed, and the order. */
const TYPED = 'with'
const ORDER = 'by'

/** A list narrowed and ordered by what the address of the page says: going back widens it again. */
export function useNarrowing<T>(items: T[], asked: Asked<T>): Narrowing<T> {
  const many = items.length > (asked.glance ?? GLANCE)
  const { facets, orders = [], textOf, inOrder = {} } = many ? asked : { facets: [] }
  const [params, setParams] = useSearchParams()
  const chosen = Object.fromEntries(facets.map(({ key }) => [key, params.get(key) ?? undefined]))
  const typed = params.get(TYPED) ?? ''
  const order = orders.find(({ value }) => value === params.get(ORDER)) ?? orders[0]
  const leftBy = (by: readonly Facet<T>[]) => narrowed(items, by, chosen, typed, textOf)
  const left = leftBy(facets)
  const set = (changed: Record<string, string | undefined>) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before)
        for (const [key, value] of Object.entries(changed)) {
          if (value) next.set(key, value)
          else next.delete(key)
        }
        return next
      },
      { replace: true },
    )
  return {
    items: order ? order.sort(left) : left,
    many,
    chosen,
    typed: textOf ? typed : null,
    order: order?.value ?? '',
    orders,
    facets: facets.map((facet) => ({
      key: facet.key,
      legend: facet.legend,
      alone: facet.alone ?? false,
      counts: countsOf(
        items,
        facet,
        leftBy(facets.filter((other) => other !== facet)),
        inOrder[facet.key],
      ),
    })),
    narrow: left.length < items.length,
    choose: (key, value) => set({ [key]: value }),
    type: (words) => set({ [TYPED]: words }),
    orderBy: (value) => set({ [ORDER]: value }),
    clear: () =>
      set(
        Object.fromEntries([TYPED, ...facets.map(({ key }) => key)].map((key) => [key, undefined])),
      ),
  }
}
