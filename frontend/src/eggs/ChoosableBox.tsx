import { type KeyboardEvent, useRef } from 'react'
import { BoxFrame, EggPicture, EggSpot, spotButton } from './BoxFrame'
import { describeEgg } from './describe'
import { nameOf } from './look'
import { type PlacedEgg, scaleFor } from './places'

/** A box whose eggs can be chosen: one button for each egg, in the drawing. */
export function ChoosableBox({
  eggs,
  medium,
  onGrid,
  day,
  chosen,
  onChoose,
  onReach,
}: {
  eggs: PlacedEgg[]
  medium: string
  onGrid: boolean
  day: number
  chosen: string | null
  onChoose: (name: string) => void
  /** An egg got the focus, by Tab too: keys are its from now on. */
  onReach?: (name: string) => void
}) {
  const scale = scaleFor(eggs.length)
  const buttons = useRef<(HTMLButtonElement | null)[]>([])
  /** Arrow keys go from egg to egg. */
  const move = (at: number, event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
    if (!by) return
    event.preventDefault()
    const to = (at + by + eggs.length) % eggs.length
    buttons.current[to]?.focus()
    const next = eggs[to]
    if (next) onChoose(nameOf(next))
  }
  return (
    <BoxFrame medium={medium} onGrid={onGrid} eggs={eggs}>
      {eggs.map((egg, at) => (
        <EggSpot key={nameOf(egg)} egg={egg} scale={scale}>
          <button
            type="button"
            ref={(button) => {
              buttons.current[at] = button
            }}
            aria-label={describeEgg(egg, day)}
            aria-pressed={chosen === nameOf(egg)}
            onClick={() => onChoose(nameOf(egg))}
            onFocus={() => onReach?.(nameOf(egg))}
            onKeyDown={(event) => move(at, event)}
            style={spotButton(chosen === nameOf(egg))}
          >
            <EggPicture egg={egg} scale={scale} />
          </button>
        </EggSpot>
      ))}
    </BoxFrame>
  )
}
