import type { ReactNode } from 'react'
import { EggDrawing } from '@/eggs/EggDrawing'
import type { EggLook } from '@/eggs/look'
import type { Schemas } from '@/shared/api/client'
import { token } from '@/shared/theme/token'
import type { SignKind } from './draft'

export type SignChoice = { value: string; label: string; look?: Partial<EggLook>; waves?: number }

export type SignGroup = {
  kind: SignKind | 'vessels'
  legend: string
  /** Steps through the choices on a desk. */
  letter: string
  choices: SignChoice[]
}

/** What can be seen, smelled and felt of an egg, as drawn choices. */
export const SIGN_GROUPS: SignGroup[] = [
  {
    kind: 'vessels',
    legend: 'By torch',
    letter: 'v',
    choices: [
      { value: 'strong', label: 'strong', look: { candled: { vessels: 'strong' } } },
      { value: 'weak', label: 'weak', look: { candled: { vessels: 'weak' } } },
      { value: 'unsure', label: 'not sure' },
      { value: 'none', label: 'none', look: { candled: { vessels: 'none' } } },
      { value: 'broken', label: 'ring', look: { candled: { vessels: 'broken' } } },
    ],
  },
  {
    kind: 'mould',
    legend: 'Mould',
    letter: 'm',
    choices: [
      { value: 'none', label: 'none', look: {} },
      { value: 'spot', label: 'spot', look: { mould: 'spot' } },
      { value: 'patch', label: 'patch', look: { mould: 'patch' } },
      { value: 'furry', label: 'furry', look: { mould: 'furry' } },
    ],
  },
  {
    kind: 'smell',
    legend: 'Smell of this egg',
    letter: 'o',
    choices: [
      { value: 'none', label: 'none', look: {}, waves: 0 },
      { value: 'off', label: 'off', look: {}, waves: 1 },
      { value: 'foul', label: 'foul', look: {}, waves: 3 },
    ],
  },
  {
    kind: 'wet',
    legend: 'Wet',
    letter: 'w',
    choices: [
      { value: 'dry', label: 'dry', look: {} },
      { value: 'weeping', label: 'spot, weeping', look: { wet: true } },
      { value: 'leaking', label: 'leaking', look: { wet: true, grade: 3 } },
    ],
  },
  {
    kind: 'colour',
    legend: 'Colour',
    letter: 'y',
    choices: [
      { value: 'white', label: 'clean white', look: { colour: 'white' } },
      { value: 'yellowing', label: 'yellowing', look: { colour: 'yellowing' } },
      { value: 'odd', label: 'grey, green, pink', look: { colour: 'odd' } },
    ],
  },
  {
    kind: 'movement',
    legend: 'Movement by torch',
    letter: 'i',
    choices: [{ value: 'seen', label: 'it moves', look: { candled: { vessels: 'strong' } } }],
  },
  {
    kind: 'body',
    legend: 'Dark body by torch',
    letter: 'd',
    choices: [
      {
        value: 'dark',
        label: 'below, vessels on top',
        look: { candled: { vessels: 'strong', darkBody: true } },
      },
    ],
  },
  {
    kind: 'feel',
    legend: 'Feel',
    letter: 'f',
    choices: [
      { value: 'firm', label: 'firm or full', look: {} },
      { value: 'mushy', label: 'mushy', look: { grade: 4, dentsAllOver: true } },
    ],
  },
  {
    kind: 'touch',
    legend: 'Touched when opened',
    letter: 'h',
    choices: [
      { value: 'reacts', label: 'reacts', look: { fate: 'cut' } },
      { value: 'still', label: 'no reaction', look: { fate: 'cut', grade: 3 } },
    ],
  },
]

export const EGG_ACTS: { value: Schemas['EggActKind']; label: string }[] = [
  { value: 'powdered', label: 'Powdered' },
  { value: 'supported', label: 'Supported' },
  { value: 'marked', label: 'Marked' },
  { value: 'removed', label: 'Removed' },
  { value: 'rolled', label: 'Found rolled' },
  { value: 'dropped', label: 'Knocked or dropped' },
  { value: 'torn', label: 'Torn' },
  { value: 'lay in water', label: 'Lay in water' },
]

export const BOX_ACTS: { value: Schemas['BoxActKind']; label: string }[] = [
  { value: 'lid wiped', label: 'Lid wiped' },
  { value: 'aired', label: 'Aired' },
  { value: 'film replaced', label: 'New film' },
  { value: 'damp cloth over the eggs', label: 'Damp cloth' },
  { value: 'damp cloth taken off', label: 'Cloth off' },
  { value: 'grid removed', label: 'Grid out' },
  { value: 'moved to damp paper', label: 'Moved to paper' },
]

/** A choice as the egg would look. */
export function drawnSign(
  choice: SignChoice,
  number: number,
  shells: readonly string[],
): ReactNode {
  if (!choice.look) {
    return <QuestionMark />
  }
  return (
    <span style={{ position: 'relative', display: 'inline-block', pointerEvents: 'none' }}>
      <EggDrawing egg={{ number, grade: 0, shells, ...choice.look }} size={46} decorative />
      {choice.waves ? <Waves count={choice.waves} /> : null}
    </span>
  )
}

function QuestionMark() {
  return (
    <svg width={46} height={35} viewBox="0 0 46 35" aria-hidden>
      <text x={23} y={26} textAnchor="middle" fontSize={25} fontWeight={800} fill={token('soft')}>
        ?
      </text>
    </svg>
  )
}

/** A smell rising from the egg. */
function Waves({ count }: { count: number }) {
  return (
    <svg
      width={46}
      height={16}
      viewBox="0 0 46 16"
      aria-hidden
      style={{ position: 'absolute', left: 0, top: -6 }}
    >
      {Array.from({ length: count }, (_, i) => {
        const x = 23 + (i - (count - 1) / 2) * 11
        return (
          <path
            key={i}
            d={`M${x} 15q-4 -4 0 -7t0 -7`}
            fill="none"
            stroke={token('vessel')}
            strokeWidth={2.2}
            strokeLinecap="round"
          />
        )
      })}
    </svg>
  )
}
