import { type KeyboardEvent, memo, useCallback } from 'react'
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
  return (
    <BoxFrame medium={medium} onGrid={onGrid} eggs={eggs}>
      {eggs.map((egg) => (
        <EggButton
          key={nameOf(egg)}
          egg={egg}
          scale={scale}
          day={day}
          chosen={chosen === nameOf(egg)}
          onChoose={onChoose}
          onReach={onReach}
        />
      ))}
    </BoxFrame>
  )
}

/** One egg of the box, drawn again only when it is another one, or chosen, or let go. */
const EggButton = memo(function EggButton({
  egg,
  scale,
  day,
  chosen,
  onChoose,
  onReach,
}: {
  egg: PlacedEgg
  scale: number
  day: number
  chosen: boolean
  onChoose: (name: string) => void
  onReach: ((name: string) => void) | undefined
}) {
  const name = nameOf(egg)
  /** Arrow keys go from egg to egg. */
  const move = useCallback(
    (event: KeyboardEvent<HTMLButtonElement>) => {
      const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key]
      const frame = event.currentTarget.closest('[data-box]')
      if (!by || !frame) return
      event.preventDefault()
      const all = [...frame.querySelectorAll('button')]
      const next = all[(all.indexOf(event.currentTarget) + by + all.length) % all.length]
      next?.focus()
      if (next?.value) onChoose(next.value)
    },
    [onChoose],
  )
  return (
    <EggSpot egg={egg} scale={scale}>
      <button
        type="button"
        value={name}
        aria-label={describeEgg(egg, day)}
        aria-pressed={chosen}
        onClick={() => onChoose(name)}
        onFocus={() => onReach?.(name)}
        onKeyDown={move}
        style={spotButton(chosen)}
      >
        <EggPicture egg={egg} scale={scale} />
      </button>
    </EggSpot>
  )
})
