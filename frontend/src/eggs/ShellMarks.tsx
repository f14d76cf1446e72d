import { token } from '@/shared/theme/token'
import type { EggLook } from './look'
import { settled } from './outline'

/** What is seen on the shell: windows, stains, damp and wet spots, odd colours. */
export function ShellMarks({ egg, line, fine }: { egg: EggLook; line: number; fine: boolean }) {
  return (
    <g>
      {egg.shells?.includes('window') && (
        <g>
          <ellipse
            cx={15}
            cy={-6}
            rx={11}
            ry={7}
            fill={token('window')}
            stroke={token('soft')}
            strokeWidth={line * 0.6}
            strokeDasharray="3 3"
          />
          {fine && (
            <ellipse
              cx={-18}
              cy={10}
              rx={6}
              ry={4}
              fill={token('window')}
              stroke={token('soft')}
              strokeWidth={line * 0.5}
              strokeDasharray="2 3"
            />
          )}
        </g>
      )}
      {egg.shells?.includes('stained') && (
        <path d="M-44 8Q-30 2 -22 10T-2 12Q2 22 -10 34H-50Z" fill={token('stain')} />
      )}
      {egg.shells?.includes('damp spot') && (
        <ellipse cx={-12} cy={14} rx={15} ry={9} fill={token('shellShade')} />
      )}
      {egg.colour === 'odd' && (
        <g
          fill={token('stain')}
          stroke={token('mould')}
          strokeWidth={line * 0.7}
          strokeDasharray="4 3"
        >
          <ellipse cx={18} cy={-8} rx={13} ry={8} />
          <ellipse cx={-20} cy={4} rx={9} ry={7} />
        </g>
      )}
      {egg.wet && (
        <g fill="none" stroke={token('sound')} strokeWidth={line} strokeLinecap="round">
          <path d="M-30 -6Q-26 -18 -12 -21" />
          <path d="M-23 -3Q-20 -11 -11 -13" />
        </g>
      )}
    </g>
  )
}

/** Stipple that grows with the grade. */
export function Mould({
  grade,
  seed,
  line,
}: {
  grade: 'spot' | 'patch' | 'furry'
  seed: number
  line: number
}) {
  const { dots, spread } = {
    spot: { dots: 7, spread: 8 },
    patch: { dots: 26, spread: 17 },
    furry: { dots: 95, spread: 46 },
  }[grade]
  const middle = grade === 'furry' ? { x: 0, y: 0 } : { x: -14, y: 6 }
  return (
    <g fill={token('mould')}>
      {Array.from({ length: dots }, (_, i) => {
        const turn = i * 2.39996 + seed
        const reach = spread * Math.sqrt((i + 0.5) / dots)
        return (
          <circle
            key={i}
            cx={middle.x + reach * Math.cos(turn)}
            cy={middle.y + reach * 0.68 * Math.sin(turn)}
            r={Math.max(1.3, line * (0.55 + 0.35 * settled(seed, i)))}
          />
        )
      })}
    </g>
  )
}
