import { token } from '@/shared/theme/token'
import type { Found } from './found'

type Spiral = { turns: number; radius: number; thick: number }

/** How far it was grown, as a coil: more turns, and thicker. */
const STAGES: Record<string, Spiral> = {
  early: { turns: 0.8, radius: 6, thick: 2.6 },
  mid: { turns: 1.4, radius: 12, thick: 4.4 },
  late: { turns: 2, radius: 18, thick: 6 },
  'full term': { turns: 2.5, radius: 24, thick: 7.4 },
}

const PLACES: Record<string, [number, number]> = { top: [2, -12], side: [22, 2], under: [2, 14] }

/** The coil of a stage; an animal is drawn where nobody said how far, none for yolk only. */
export function spiralOf(stage: string | undefined): Spiral | undefined {
  return stage === 'yolk only' || stage === undefined ? undefined : STAGES[stage]
}

/** The animal as it lay: its coil, its form, the cord, fluid at its mouth. */
export function Animal({ found, line }: { found: Found; line: number }) {
  const spiral = spiralOf(found.stage?.[0])
  if (!spiral) return null
  const form = found.form ?? []
  const small = form.includes('small') ? 0.6 : 1
  const [x, y] = PLACES[found.position?.[0] ?? ''] ?? [6, 0]
  const points = coil(spiral, form.includes('kink'))
  const [headX, headY] = points.at(-1) ?? [0, 0]
  return (
    <g transform={`translate(${x} ${spiral.radius > 20 ? y / 3 : y}) scale(${small})`}>
      <path
        d={`M${points.map(([px, py]) => `${px.toFixed(1)} ${py.toFixed(1)}`).join('L')}`}
        fill="none"
        stroke={token('body')}
        strokeWidth={spiral.thick}
        strokeLinecap="round"
        strokeLinejoin={form.includes('kink') ? 'miter' : 'round'}
      />
      <circle cx={headX} cy={headY} r={spiral.thick * 0.82} fill={token('body')} />
      {!form.includes('no eyes') && (
        <circle cx={headX} cy={headY} r={spiral.thick * 0.28} fill={token('shell')} />
      )}
      {form.includes('cleft') && (
        <path
          d={`M${headX} ${headY - spiral.thick}v${spiral.thick}`}
          stroke={token('shell')}
          strokeWidth={line * 1.4}
        />
      )}
      {form.includes('open belly') && (
        <circle
          cx={0}
          cy={spiral.radius * 0.5}
          r={spiral.thick * 0.7}
          fill={token('yolk')}
          stroke={token('vessel')}
          strokeWidth={line}
        />
      )}
      {found.cord?.includes('around') && (
        <ellipse
          rx={spiral.radius * 0.95}
          ry={spiral.radius * 0.36}
          fill="none"
          stroke={token('vessel')}
          strokeWidth={line * 1.6}
        />
      )}
      {found.fluid?.includes('mouth') && (
        <path
          d={`M${headX + spiral.thick} ${headY - 2}q4 5 0 7q-4 -2 0 -7z`}
          fill={token('window')}
          stroke={token('shellInk')}
          strokeWidth={line * 0.6}
        />
      )}
    </g>
  )
}

function coil({ turns, radius }: Spiral, kinked: boolean): [number, number][] {
  const steps = Math.ceil(turns * 16)
  return Array.from({ length: steps + 1 }, (_, i) => {
    const angle = (i / steps) * turns * 2 * Math.PI
    const jump = kinked && i % 9 === 4 ? 1.28 : 1
    const r = radius * (0.18 + (0.82 * i) / steps) * jump
    return [r * Math.cos(angle), r * 0.82 * Math.sin(angle)]
  })
}
