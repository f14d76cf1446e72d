import { token } from '@/shared/theme/token'
import type { Candling } from './look'

/** What the torch shows: disc and vessels, a dark body late in term. */
export function CandledInside({
  candled,
  seed,
  line,
}: {
  candled: Candling
  seed: number
  line: number
}) {
  const centre = { top: { x: 0, y: -12 }, side: { x: 25, y: -2 }, under: { x: 0, y: 15 } }[
    candled.disc ?? 'top'
  ]
  const arms = candled.vessels === 'strong' ? 7 : candled.vessels === 'weak' ? 3 : 0
  return (
    <g>
      {candled.vessels === 'none' && (
        <rect x={-60} y={-45} width={120} height={90} fill={token('yellowed')} />
      )}
      {candled.darkBody && (
        <path d="M-60 2Q-30 -8 0 4T60 0V50H-60Z" fill={token('body')} opacity={0.85} />
      )}
      <g
        fill="none"
        stroke={token('embryo')}
        strokeLinecap="round"
        strokeWidth={candled.vessels === 'weak' ? line * 0.8 : line * 1.25}
      >
        {candled.vessels === 'broken' && (
          <ellipse cx={centre.x} cy={centre.y} rx={19} ry={11} strokeDasharray="9 5" />
        )}
        {Array.from({ length: arms }, (_, i) => (
          <path key={i} d={vessel(centre, i, arms, seed)} />
        ))}
      </g>
      {candled.vessels !== 'none' && candled.vessels !== 'broken' && (
        <g fill={token('embryo')}>
          <circle cx={centre.x} cy={centre.y} r={4.5} />
          <circle
            cx={centre.x}
            cy={centre.y}
            r={8.5}
            fill="none"
            stroke={token('embryo')}
            strokeWidth={line * 0.8}
          />
        </g>
      )}
    </g>
  )
}

function vessel(centre: { x: number; y: number }, i: number, arms: number, seed: number): string {
  const turn = (i / arms) * 2 * Math.PI + seed
  const bend = turn + 0.45
  const near = { x: centre.x + 9 * Math.cos(turn), y: centre.y + 7 * Math.sin(turn) }
  const mid = { x: centre.x + 20 * Math.cos(bend), y: centre.y + 12 * Math.sin(bend) }
  const far = { x: centre.x + 32 * Math.cos(turn + 0.15), y: centre.y + 19 * Math.sin(turn + 0.15) }
  const fork = { x: centre.x + 29 * Math.cos(turn + 0.6), y: centre.y + 18 * Math.sin(turn + 0.6) }
  const at = (p: { x: number; y: number }) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`
  return `M${at(near)}Q${at(mid)} ${at(far)}M${at(mid)}L${at(fork)}`
}
