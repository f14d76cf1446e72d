import { queryOptions, useQuery } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'
import type { RoundBox } from './queries'

export type Share = Schemas['ShareResponse']

export const sharesQuery = queryOptions({
  queryKey: ['round', 'shares'],
  queryFn: () => answer(api.GET('/api/round/shares')),
})

/** Who opens which cabinet on this round; nobody's where that was not read, as without a network. */
export const useShares = (): Schemas['SharesResponse'] =>
  useQuery(sharesQuery).data ?? { possible: false, shares: [] }

/**
 * Whether a box is left to somebody else: one in a cabinet that another took, and for whoever took
 * some, every box in a cabinet that is not theirs.
 */
export function isOthers(shares: Share[]): (box: Pick<RoundBox, 'cabinet'>) => boolean {
  const mine = new Set(shares.filter(({ mine }) => mine).map(({ cabinet }) => cabinet))
  const taken = new Set(shares.map(({ cabinet }) => cabinet))
  return ({ cabinet }) => (mine.size > 0 ? !mine.has(cabinet) : taken.has(cabinet))
}
