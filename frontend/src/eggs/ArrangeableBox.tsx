import { useDndMonitor, useDraggable } from '@dnd-kit/core'
import type { KeyboardEvent } from 'react'
import { BoxFrame, EggPicture, EggSpot, spotButton } from './BoxFrame'
import { describeEgg } from './describe'
import { type PlacedEgg, scaleFor } from './places'

/** A box whose eggs can be dragged, or moved with the arrow keys; `onMove` gets shares of the box. */
export function ArrangeableBox({
  eggs,
  medium,
  onGrid,
  frame,
  chosen,
  onChoose,
  onMove,
}: {
  eggs: PlacedEgg[]
  medium: string
  onGrid: boolean
  /** Size in px of the box on screen, to turn a drag into a share. */
  frame: () => { width: number; height: number }
  chosen: number | null
  onChoose: (number: number) => void
  onMove: (number: number, x: number, y: number) => void
}) {
  const scale = scaleFor(eggs.length)
  useDndMonitor({
    onDragEnd: ({ active, delta }) => {
      const egg = eggs.find((e) => `egg-${e.number}` === active.id)
      if (!egg) return
      const { width, height } = frame()
      onMove(egg.number, egg.x + delta.x / width, egg.y + delta.y / height)
    },
  })
  const step = (egg: PlacedEgg, event: KeyboardEvent) => {
    const by = event.shiftKey ? 0.06 : 0.015
    const [dx, dy] = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    }[event.key] ?? [0, 0]
    if (dx === 0 && dy === 0) return
    event.preventDefault()
    onMove(egg.number, egg.x + (dx ?? 0), egg.y + (dy ?? 0))
  }
  return (
    <BoxFrame medium={medium} onGrid={onGrid} eggs={eggs}>
      {eggs.map((egg) => (
        <EggSpot key={egg.number} egg={egg} scale={scale}>
          <DraggableEgg
            egg={egg}
            scale={scale}
            chosen={chosen === egg.number}
            onChoose={() => onChoose(egg.number)}
            onKeyDown={(event) => step(egg, event)}
          />
        </EggSpot>
      ))}
    </BoxFrame>
  )
}

function DraggableEgg({
  egg,
  scale,
  chosen,
  onChoose,
  onKeyDown,
}: {
  egg: PlacedEgg
  scale: number
  chosen: boolean
  onChoose: () => void
  onKeyDown: (event: KeyboardEvent) => void
}) {
  const { setNodeRef, listeners, transform } = useDraggable({ id: `egg-${egg.number}` })
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...listeners}
      aria-label={`${describeEgg(egg)}: arrow keys move it`}
      aria-pressed={chosen}
      onClick={onChoose}
      onKeyDown={onKeyDown}
      style={{
        ...spotButton(chosen),
        cursor: 'grab',
        touchAction: 'none',
        transform: transform ? `translate(${transform.x}px, ${transform.y}px)` : undefined,
      }}
    >
      <EggPicture egg={egg} scale={scale} />
    </button>
  )
}
