import type { ReactNode } from 'react'
import { LidDrops } from '@/eggs/LidDrops'
import { token } from '@/shared/theme/token'

export type BoxSignKind = 'lid' | 'medium' | 'weight' | 'smell' | 'pests'

type Choice = { value: string; label: string; drawing?: ReactNode }

/** What can be seen and felt of the box, as drawn choices. */
export const BOX_SIGNS: { kind: BoxSignKind; legend: string; choices: Choice[] }[] = [
  {
    kind: 'lid',
    legend: 'Water under the lid',
    choices: ['none', 'edges', 'half', 'raining'].map((value) => ({
      value,
      label: value,
      drawing: <Lid wet={value} />,
    })),
  },
  {
    kind: 'medium',
    legend: 'Medium between the fingers',
    choices: [
      { value: 'drips', label: 'drips', drawing: <Medium damp={3} /> },
      { value: 'clumps', label: 'clumps', drawing: <Medium damp={2} /> },
      { value: 'barely damp', label: 'barely damp', drawing: <Medium damp={1} /> },
      { value: 'dry', label: 'dry', drawing: <Medium damp={0} /> },
    ],
  },
  {
    kind: 'weight',
    legend: 'In the hand',
    choices: [
      { value: 'as ever', label: 'as heavy as ever' },
      { value: 'light', label: 'light' },
    ],
  },
  {
    kind: 'smell',
    legend: 'Smell on opening',
    choices: [
      { value: 'none', label: 'none' },
      { value: 'off', label: 'off' },
      { value: 'foul', label: 'foul' },
    ],
  },
  {
    kind: 'pests',
    legend: 'Pests',
    choices: ['none', 'flies', 'ants', 'larvae'].map((value) => ({ value, label: value })),
  },
]

function Lid({ wet }: { wet: string }) {
  return (
    <svg width={64} height={30} viewBox="0 0 64 30" aria-hidden>
      <line x1={3} x2={61} y1={5} y2={5} stroke={token('ink')} strokeWidth={3} />
      <LidDrops wet={wet} from={6} to={58} y={9} size={0.9} />
    </svg>
  )
}

/** A pinch of medium: grains apart when dry, one lump when damp, drops under it when it drips. */
function Medium({ damp }: { damp: number }) {
  const spread = [11, 8.5, 6.5, 6.5][damp] ?? 8
  return (
    <svg width={64} height={34} viewBox="0 0 64 34" aria-hidden>
      {Array.from({ length: 9 }, (_, i) => (
        <circle
          key={i}
          cx={32 + ((i % 3) - 1) * spread + (damp ? 0 : ((i * 7) % 5) - 2)}
          cy={13 + (Math.floor(i / 3) - 1) * spread * 0.62}
          r={damp >= 2 ? 5 : 3.4}
          fill={token(damp >= 2 ? 'stain' : 'grain')}
          stroke={token('shellInk')}
          strokeWidth={1}
        />
      ))}
      {damp === 3 && (
        <g stroke={token('cold2')} strokeWidth={3} strokeLinecap="round">
          <line x1={24} x2={24} y1={26} y2={31} />
          <line x1={33} x2={33} y1={27} y2={33} />
          <line x1={42} x2={42} y1={26} y2={31} />
        </g>
      )}
    </svg>
  )
}
