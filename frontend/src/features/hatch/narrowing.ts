import type { Asked } from '@/shared/many/useNarrowing'
import type { HatchingClutch } from './queries'

/** More clutches are narrowed, and those that wait are folded; fewer are seen at a glance. */
export const SEEN_AT_A_GLANCE = 4

/** How far a clutch is; the order is that in which it calls for somebody. */
const STAGES = {
  pipping: 'Pipping',
  out: 'None closed any more',
  waiting: 'Before the first pip',
  dam: 'With the dam',
  closed: 'Finished',
} as const

type Stage = keyof typeof STAGES

export function stageOf(clutch: HatchingClutch): Stage {
  if (clutch.finished_at) return 'closed'
  if (clutch.maternal) return 'dam'
  if (!clutch.first_pipped_at) return 'waiting'
  return clutch.closed.length > 0 ? 'pipping' : 'out'
}

/** Whether its eggs are shown by the hour without being asked for. */
export const isUnderWay = (clutch: HatchingClutch) => {
  const stage = stageOf(clutch)
  return stage === 'pipping' || stage === 'out'
}

const KEYS = Object.keys(STAGES)

/** How the clutches at hatch are narrowed; few are not. */
export const narrowingOf = (clutches: HatchingClutch[]): Asked<HatchingClutch> =>
  clutches.length <= SEEN_AT_A_GLANCE
    ? { facets: [] }
    : {
        facets: [
          {
            key: 'stage',
            legend: 'Now',
            alone: true,
            valuesOf: (clutch) => [stageOf(clutch)],
            words: (value) => STAGES[value as Stage] ?? value,
          },
          {
            key: 'cabinet',
            legend: 'Cabinet',
            valuesOf: ({ boxes }) => [...new Set(boxes.map(({ cabinet }) => cabinet))],
          },
        ],
        orders: [
          // As the house tells them, and held: none changes places under a thumb.
          { value: 'needs', label: 'What needs somebody first', sort: (all) => all },
          { value: 'code', label: 'By code', sort: byCode },
        ],
        inOrder: { stage: KEYS },
        textOf: ({ code, dam }) => `${code} ${dam}`,
      }

const byCode = (all: HatchingClutch[]) => [...all].sort((a, b) => a.code.localeCompare(b.code))
