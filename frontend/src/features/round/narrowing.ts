import type { Schemas } from '@/shared/api/client'
import type { Facet } from '@/shared/many/narrowing'
import type { Asked, Order } from '@/shared/many/useNarrowing'
import { isPressing, urgencyRank } from '@/shared/rounds/urgency'
import type { RoundBox } from './queries'

const PRESSING = 'pressing'

/** What a box is opened for, in the order in which reasons are told. */
const NEEDS: Record<Schemas['DueKind'] | typeof PRESSING, string> = {
  pressing: 'Cannot wait',
  dents: 'Dents',
  water: 'Water',
  watch: 'Look again',
  candle: 'Candle',
  air: 'Air',
  cloth: 'Damp cloth',
  'last days': 'Last week',
  rhythm: 'Usual visit',
}

const NEEDS_IN_ORDER = Object.keys(NEEDS)

const FACETS: readonly Facet<RoundBox>[] = [
  {
    key: 'needs',
    legend: 'Needs',
    alone: true,
    valuesOf: ({ due }) => [
      ...(due.some(({ urgency }) => isPressing(urgency)) ? [PRESSING] : []),
      ...new Set(due.map(({ kind }) => kind)),
    ],
    words: (value) => NEEDS[value as keyof typeof NEEDS] ?? value,
  },
  { key: 'cabinet', legend: 'Cabinet', valuesOf: ({ cabinet }) => [cabinet] },
]

const rankOf = ({ due }: RoundBox) =>
  Math.max(-1, ...due.map(({ urgency }) => urgencyRank(urgency)))

const longestShut = (a: RoundBox, b: RoundBox) => a.last_visit_at.localeCompare(b.last_visit_at)

/** By shelf, doors stay shut; the others tell what cannot wait, or has waited. */
const ORDERS: readonly Order<RoundBox>[] = [
  { value: 'shelf', label: 'Shelf by shelf', sort: (boxes) => boxes },
  {
    value: 'pressing',
    label: 'What cannot wait first',
    sort: (boxes) => [...boxes].sort((a, b) => rankOf(b) - rankOf(a)),
  },
  { value: 'longest', label: 'Longest shut first', sort: (boxes) => [...boxes].sort(longestShut) },
]

/** What a box is found by when something is typed. */
const wordsOfBox = ({ name, cabinet, shelf, clutches }: RoundBox) =>
  [name, cabinet, shelf, ...clutches.flatMap(({ code, dam }) => [code, dam])].join(' ')

/** How the boxes of a round are narrowed. */
export const NARROWING: Asked<RoundBox> = {
  facets: FACETS,
  orders: ORDERS,
  textOf: wordsOfBox,
  inOrder: { needs: NEEDS_IN_ORDER },
}
