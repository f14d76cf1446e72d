import { token } from '@/shared/theme/token'
import { EggShape } from './EggDrawing'
import { LidDrops } from './LidDrops'
import { nameOf } from './look'
import type { PlacedEgg } from './places'

const WIDTH = 240
const HEIGHT = 132
const FLOOR = 122
/** Height of medium and water in a box that was just set up. */
const FULL = 44
const WALL = 14

export type WaterLevel = { share: number; share_low: number; share_high: number }

/**
 * A box as it stands on its shelf, cut open: eggs on their medium, water as the fill of the
 * tray. The dashed line is how low the water may be. Nothing is filled where nobody knows.
 */
export function BoxFromSide({
  eggs,
  water,
  lid,
  trouble,
  drops = null,
}: {
  eggs: PlacedEgg[]
  water: WaterLevel | null
  /** How the lid is drawn: shut, or standing a little open. */
  lid: 'shut' | 'open'
  trouble: boolean
  /** How wet the lid was when last looked at; null: nobody looked. */
  drops?: string | null
}) {
  const inner = WIDTH - 2 * WALL
  const surface = FLOOR - FULL
  const level = (share: number) => FLOOR - FULL * Math.max(0, Math.min(1, share))
  // Eggs at the back stand a little higher and are drawn first.
  const ordered = [...eggs].sort((a, b) => a.y - b.y)
  const scale = eggs.length > 8 ? 0.46 : eggs.length > 5 ? 0.58 : 0.66
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      aria-hidden
      style={{ display: 'block', overflow: 'visible' }}
    >
      <rect x={WALL} y={surface} width={inner} height={FULL} fill={token('grain')} opacity={0.32} />
      {water && (
        <>
          <rect
            x={WALL}
            y={level(water.share)}
            width={inner}
            height={FLOOR - level(water.share)}
            fill={token('cold1')}
            opacity={0.75}
          />
          <line
            x1={WALL}
            x2={WALL + inner}
            y1={level(water.share_low)}
            y2={level(water.share_low)}
            stroke={token('cold2')}
            strokeWidth={2.4}
            strokeDasharray="7 5"
          />
        </>
      )}
      {ordered.map((egg) => (
        <g
          key={nameOf(egg)}
          transform={`translate(${WALL + 24 + egg.x * (inner - 48)} ${
            surface - 12 - (1 - egg.y) * 16
          }) scale(${scale})`}
        >
          <EggShape egg={egg} size={60} />
        </g>
      ))}
      {drops && <LidDrops wet={drops} from={WALL + 4} to={WIDTH - WALL - 4} y={36} />}
      <path
        d={`M ${WALL - 4} 34 L ${WALL} ${FLOOR + 3} L ${WIDTH - WALL} ${FLOOR + 3} L ${WIDTH - WALL + 4} 34`}
        fill="none"
        stroke={token(trouble ? 'vessel' : 'ink')}
        strokeWidth={trouble ? 5 : 3.2}
        strokeLinejoin="round"
      />
      <line
        x1={WALL - 10}
        x2={WIDTH - WALL + 10}
        y1={31}
        y2={lid === 'open' ? 21 : 31}
        stroke={token(trouble ? 'vessel' : 'ink')}
        strokeWidth={trouble ? 5 : 3.2}
        strokeLinecap="round"
      />
    </svg>
  )
}
