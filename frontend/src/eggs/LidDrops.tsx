import { token } from '@/shared/theme/token'

const DROPS = 14

/** Which of the drops along a lid there are, by how wet it is. */
function shown(wet: string, i: number): boolean {
  const edge = Math.min(i, DROPS - 1 - i)
  if (wet === 'edges') return edge < 2
  if (wet === 'half') return edge < 4
  return wet === 'raining'
}

/** Condensation under a lid, between `from` and `to`: at the edges, over half, raining. */
export function LidDrops({
  wet,
  from,
  to,
  y,
  size = 1,
}: {
  wet: string
  from: number
  to: number
  y: number
  size?: number
}) {
  const step = (to - from) / (DROPS - 1)
  const rain = wet === 'raining'
  return (
    <g stroke={token('cold2')} strokeWidth={3.4 * size} strokeLinecap="round">
      {Array.from({ length: DROPS }, (_, i) => i)
        .filter((i) => shown(wet, i))
        .map((i) => {
          const x = from + i * step
          // Rain falls: every other drop hangs lower.
          const drop = rain && i % 2 ? 15 : 5
          return <line key={i} x1={x} x2={x} y1={y} y2={y + drop * size} />
        })}
    </g>
  )
}
