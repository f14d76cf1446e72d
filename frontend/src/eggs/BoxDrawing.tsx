import { token } from '@/shared/theme/token'
import { EggShape } from './EggDrawing'
import { BOX, type PlacedEgg, scaleFor, tilt } from './places'
import { Clumps, Tray } from './Tray'

/** A box from above, without interaction: eggs where they lie, on their medium. */
export function BoxDrawing({
  eggs,
  medium,
  width,
  label,
}: {
  eggs: PlacedEgg[]
  medium: string
  width: number
  label: string
}) {
  const scale = scaleFor(eggs.length)
  return (
    <svg
      width={width}
      height={(width * BOX.height) / BOX.width}
      viewBox={`0 0 ${BOX.width} ${BOX.height}`}
      role="img"
      aria-label={label}
      style={{ display: 'block', maxWidth: '100%', height: 'auto' }}
    >
      <Tray medium={medium} fine={width > 200} onGrid={false} />
      <Clumps eggs={eggs} />
      {eggs.map((egg) => (
        <g
          key={egg.number}
          transform={`translate(${egg.x * BOX.width} ${egg.y * BOX.height}) scale(${scale})`}
        >
          {egg.chosen && <circle r={56} fill="none" stroke={token('yolk')} strokeWidth={14} />}
          <EggShape
            egg={egg}
            size={(width / BOX.width) * 100 * scale}
            tilt={tilt(egg.number)}
            showNumber={width > 200}
          />
        </g>
      ))}
    </svg>
  )
}
