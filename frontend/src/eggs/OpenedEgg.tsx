import { token } from '@/shared/theme/token'
import type { Found } from './found'
import { Animal, spiralOf } from './OpenedAnimal'

type Props = {
  found: Found
  /** Width in px, 56 (a choice) to 220. */
  size: number
  label?: string
}

/** A failed egg cut open, drawn from what was found: shell, yolk, animal, mould. */
export function OpenedEgg({ found, size, label }: Props) {
  const line = Math.min(4, Math.max(1.4, 150 / size))
  const has = (kind: string, value: string) => found[kind]?.includes(value) ?? false
  const frame = {
    width: size,
    height: size * 0.8,
    viewBox: '-52 -44 104 84',
    style: { display: 'block', overflow: 'visible' },
  } as const
  const drawn = (
    <>
      <Shell has={has} line={line} />
      <Yolk value={found.yolk?.[0]} line={line} />
      <Vessels value={found.vessels?.[0]} line={line} />
      {spiralOf(found.stage?.[0]) && <Animal found={found} line={line} />}
      <Moulds has={has} />
      <Smell value={found.smell?.[0]} line={line} />
      {has('larvae', 'seen') && <Larvae line={line} />}
    </>
  )
  return label ? (
    <svg {...frame} role="img" aria-label={label}>
      {drawn}
    </svg>
  ) : (
    <svg {...frame} aria-hidden="true">
      {drawn}
    </svg>
  )
}

type Has = (kind: string, value: string) => boolean

function Shell({ has, line }: { has: Has; line: number }) {
  const stroke = has('shell', 'hard') ? line * 2.6 : has('shell', 'thin') ? line * 0.55 : line * 1.4
  return (
    <g fill="none" stroke={token('shellInk')} strokeWidth={stroke} strokeLinecap="round">
      <ellipse rx={46} ry={33} fill={token('shell')} stroke="none" />
      {has('shell', 'bottom soft') ? (
        <>
          <path d="M-42 13A46 33 0 1 1 42 13" />
          <path d="M-40 16Q-20 26 0 24Q20 26 40 16" strokeDasharray="5 6" />
        </>
      ) : (
        <ellipse rx={46} ry={33} />
      )}
      {has('shell', 'slit closed') && (
        <path d="M-14 -26Q0 -31 14 -26M-9 -31V-24M0 -33V-25M9 -31V-24" strokeWidth={line} />
      )}
      {has('shell', 'torn') && (
        <path d="M18 -31L13 -24L20 -19L14 -12" stroke={token('vessel')} strokeWidth={line * 1.6} />
      )}
    </g>
  )
}

function Yolk({ value, line }: { value: string | undefined; line: number }) {
  if (value === undefined || value === 'absorbed') return null
  const radius = value === 'large' ? 22 : 13
  return (
    <g>
      <circle
        cx={-16}
        cy={6}
        r={radius}
        fill={token('yolk')}
        stroke={token('shellInk')}
        strokeWidth={value === 'hard' ? line * 1.8 : line * 0.7}
      />
      {value === 'hard' && (
        <path
          d="M-25 0L-12 16M-21 -4L-6 14M-14 -6L-5 5"
          stroke={token('shellInk')}
          strokeWidth={line * 0.8}
        />
      )}
    </g>
  )
}

function Vessels({ value, line }: { value: string | undefined; line: number }) {
  if (value === undefined || value === 'none') return null
  const full = 'M0 -30Q-10 -20 -22 -24M0 -30Q-4 -16 -16 -12M0 -30Q10 -20 22 -24M0 -30Q6 -16 18 -13'
  const few = 'M0 -30Q-10 -22 -20 -24M0 -30Q10 -22 20 -24'
  return (
    <g stroke={token('vessel')} fill="none" strokeLinecap="round">
      <path
        d={value === 'weak' ? few : full}
        strokeWidth={value === 'weak' ? line * 0.6 : line * 1.1}
        strokeDasharray={value === 'cut' ? '7 6' : undefined}
      />
      {value === 'cut' && <circle cx={8} cy={-8} r={3.4} fill={token('vessel')} stroke="none" />}
    </g>
  )
}

function Moulds({ has }: { has: Has }) {
  const outside = has('outside', 'all over')
    ? RING
    : has('outside', 'top')
      ? RING.filter(([, y]) => y < -18)
      : has('outside', 'below')
        ? RING.filter(([, y]) => y > 18)
        : []
  const inside = has('inside', 'through')
    ? INSIDE
    : has('inside', 'spots')
      ? INSIDE.slice(0, 5)
      : []
  return (
    <g fill={token('mould')}>
      {[...outside, ...inside].map(([x, y]) => (
        <circle key={`${x},${y}`} cx={x} cy={y} r={2.3} />
      ))}
    </g>
  )
}

const RING = Array.from({ length: 30 }, (_, i) => {
  const angle = (i / 30) * 2 * Math.PI
  return [Math.round(48 * Math.cos(angle)), Math.round(35 * Math.sin(angle))] as const
})
const INSIDE = Array.from({ length: 22 }, (_, i) => {
  // A sunflower's order: even, and never the same spot twice.
  const angle = i * 2.4
  const radius = 5 + 4.6 * Math.sqrt(i)
  return [Math.round(1.5 * radius * Math.cos(angle)), Math.round(radius * Math.sin(angle))] as const
})

function Smell({ value, line }: { value: string | undefined; line: number }) {
  if (value !== 'off' && value !== 'foul') return null
  const waves = value === 'off' ? [0] : [-14, 0, 14]
  return (
    <g stroke={token('soft')} strokeWidth={line} fill="none" strokeLinecap="round">
      {waves.map((x) => (
        <path key={x} d={`M${x} -36q3 -2 0 -4t0 -4`} />
      ))}
    </g>
  )
}

function Larvae({ line }: { line: number }) {
  return (
    <g stroke={token('shellInk')} strokeWidth={line * 2.2} fill="none" strokeLinecap="round">
      <path d="M-30 14q4 -5 8 0M-18 22q4 -5 8 0M20 18q4 -5 8 0M28 6q4 -5 8 0" />
    </g>
  )
}
