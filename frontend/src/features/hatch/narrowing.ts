import type { Asked } from '@/shared/many/useNarrowing'
import type { HatchingClutch } from './queries'

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

/** What an egg may be told that cannot stay folded away. */
const CALLS = ['consider a window', 'widen']

/** Whether it only waits: no pip yet, none overdue by heat, no egg that calls for somebody. */
export const onlyWaits = (clutch: HatchingClutch) =>
  stageOf(clutch) === 'waiting' &&
  clutch.first_pip !== null &&
  !clutch.eggs.some(({ advice }) => advice && CALLS.includes(advice.kind))

const byCode = (all: HatchingClutch[]) => [...all].sort((a, b) => a.code.localeCompare(b.code))

/** How the clutches at hatch are narrowed; each is as high as a screen, so soon they are many. */
export const NARROWING: Asked<HatchingClutch> = {
  glance: 4,
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
  inOrder: { stage: Object.keys(STAGES) },
  textOf: ({ code, dam }) => `${code} ${dam}`,
}
