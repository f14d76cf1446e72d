import type { Schemas } from '@/shared/api/client'
import type { Facet } from '@/shared/many/narrowing'
import type { Asked, Order } from '@/shared/many/useNarrowing'
import { urgencyRank } from '@/shared/rounds/urgency'
import type { RoundBox } from './queries'

/** A list of more boxes is narrowed and ordered; a shorter one is seen at a glance. */
export const SEEN_AT_A_GLANCE = 12

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
      ...(due.some(isPressing) ? [PRESSING] : []),
      ...new Set(due.map(({ kind }) => kind)),
    ],
    words: (value) => NEEDS[value as keyof typeof NEEDS] ?? value,
  },
  { key: 'cabinet', legend: 'Cabinet', valuesOf: ({ cabinet }) => [cabinet] },
]

const isPressing = ({ urgency }: Schemas['DueResponse']) => urgencyRank(urgency) >= 2

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

/** How the boxes of a round are narrowed; few are not, whatever the address says. */
export const narrowingOf = (boxes: RoundBox[]): Asked<RoundBox> =>
  boxes.length > SEEN_AT_A_GLANCE
    ? { facets: FACETS, orders: ORDERS, textOf: wordsOfBox, inOrder: { needs: NEEDS_IN_ORDER } }
    : { facets: [] }
