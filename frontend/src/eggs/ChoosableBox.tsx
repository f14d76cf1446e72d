import type { KeyboardEvent } from 'react'
import { BoxFrame, EggPicture, EggSpot, spotButton } from './BoxFrame'
import { describeEgg } from './describe'
import { type PlacedEgg, scaleFor } from './places'

/** A box whose eggs can be chosen: one button for each egg, in the drawing. */
export function ChoosableBox({
  eggs,
  medium,
  onGrid,
  day,
  chosen,
  onChoose,
  onKey,
}: {
  eggs: PlacedEgg[]
  medium: string
  onGrid: boolean
  day: number
  chosen: number | null
  onChoose: (number: number) => void
  onKey?: (number: number, event: KeyboardEvent) => void
}) {
  const scale = scaleFor(eggs.length)
  return (
    <BoxFrame medium={medium} onGrid={onGrid} eggs={eggs}>
      {eggs.map((egg) => (
        <EggSpot key={egg.number} egg={egg} scale={scale}>
          <button
            type="button"
            aria-label={describeEgg(egg, day)}
            aria-pressed={chosen === egg.number}
            onClick={() => onChoose(egg.number)}
            onKeyDown={(event) => onKey?.(egg.number, event)}
            style={spotButton(chosen === egg.number)}
          >
            <EggPicture egg={egg} scale={scale} />
          </button>
        </EggSpot>
      ))}
    </BoxFrame>
  )
}
