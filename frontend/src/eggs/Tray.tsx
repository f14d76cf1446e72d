import { token } from '@/shared/theme/token'
import { nameOf } from './look'
import { settled } from './outline'
import { BOX, type PlacedEgg } from './places'

/** The tray: its walls, the medium in it, and the grid where eggs stand on one. */
export function Tray({ medium, fine, onGrid }: { medium: string; fine: boolean; onGrid: boolean }) {
  const { width, height } = BOX
  return (
    <g>
      <rect
        x={4}
        y={4}
        width={width - 8}
        height={height - 8}
        rx={26}
        fill={token('tray')}
        stroke={token('soft')}
        strokeWidth={fine ? 2.5 : 7}
      />
      {fine && <Grains medium={medium} />}
      {fine && onGrid && <Grid />}
    </g>
  )
}

function Grains({ medium }: { medium: string }) {
  if (medium === 'water under a grid') return null
  const flakes = medium === 'vermiculite' || medium === 'half and half'
  const round = medium !== 'vermiculite'
  return (
    <g fill={token('grain')} opacity={0.55}>
      {Array.from({ length: 150 }, (_, i) => {
        const x = 20 + settled(i, 1) * (BOX.width - 40)
        const y = 20 + settled(i, 2) * (BOX.height - 40)
        return flakes && (!round || i % 2) ? (
          <rect
            key={i}
            x={x}
            y={y}
            width={7 + settled(i, 3) * 5}
            height={2.6}
            transform={`rotate(${settled(i, 4) * 180} ${x} ${y})`}
          />
        ) : (
          <circle key={i} cx={x} cy={y} r={1.8 + settled(i, 5) * 2.6} />
        )
      })}
    </g>
  )
}

function Grid() {
  const columns = 24
  const rows = 16
  return (
    <g stroke={token('line')} strokeWidth={1.4}>
      {Array.from({ length: columns - 1 }, (_, i) => (
        <line
          key={`c${i}`}
          x1={((i + 1) * BOX.width) / columns}
          x2={((i + 1) * BOX.width) / columns}
          y1={14}
          y2={BOX.height - 14}
        />
      ))}
      {Array.from({ length: rows - 1 }, (_, i) => (
        <line
          key={`r${i}`}
          y1={((i + 1) * BOX.height) / rows}
          y2={((i + 1) * BOX.height) / rows}
          x1={14}
          x2={BOX.width - 14}
        />
      ))}
    </g>
  )
}

/** Clumps are numbered clutch by clutch. */
const clutchOf = (egg: PlacedEgg) => egg.name?.split('/')[0]

/** What joins the eggs of a clump: a broad seam from each to the next of its group. */
export function Clumps({ eggs }: { eggs: PlacedEgg[] }) {
  const seams = eggs.flatMap((egg, i) => {
    if (egg.clump == null) return []
    const next = eggs
      .slice(i + 1)
      .find((other) => other.clump === egg.clump && clutchOf(other) === clutchOf(egg))
    return next ? [{ from: egg, to: next }] : []
  })
  return (
    <g stroke={token('soft')} strokeWidth={34} strokeLinecap="round" opacity={0.5}>
      {seams.map(({ from, to }) => (
        <line
          key={`${nameOf(from)}-${nameOf(to)}`}
          x1={from.x * BOX.width}
          y1={from.y * BOX.height}
          x2={to.x * BOX.width}
          y2={to.y * BOX.height}
        />
      ))}
    </g>
  )
}
