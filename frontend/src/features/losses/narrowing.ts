import type { Schemas } from '@/shared/api/client'
import type { Asked } from '@/shared/many/useNarrowing'

type Line = Schemas['LossLineResponse']

/** What a clutch that lost eggs still asks for. */
const ASKS = { open: 'Eggs to open and say', told: 'All said' } as const

const asks = ({ lost }: Line): keyof typeof ASKS =>
  lost.some(({ opened }) => opened === null) ? 'open' : 'told'

const causeWords = (cause: string) => (cause === 'unknown' ? 'not known' : cause)

/** How the clutches of a season that lost eggs are narrowed. */
export const NARROWING: Asked<Line> = {
  facets: [
    {
      key: 'asks',
      legend: 'Asks',
      alone: true,
      valuesOf: (line) => [asks(line)],
      words: (value) => ASKS[value as keyof typeof ASKS] ?? value,
    },
    {
      key: 'cause',
      legend: 'Cause',
      valuesOf: ({ lost }) => [...new Set(lost.map(({ cause }) => cause))],
      words: causeWords,
    },
  ],
  orders: [
    { value: 'laid', label: 'As they were laid', sort: (all) => all },
    {
      value: 'lost',
      label: 'Most lost first',
      sort: (all) => [...all].sort((a, b) => b.lost.length - a.lost.length),
    },
  ],
  inOrder: { asks: Object.keys(ASKS) },
  textOf: ({ code, dam, sire }) => `${code} ${dam} ${sire ?? ''}`,
}
