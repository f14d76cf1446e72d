import { useDndMonitor, useDraggable } from '@dnd-kit/core'
import type { KeyboardEvent, ReactNode } from 'react'
import { token } from '@/shared/theme/token'
import { describeEgg } from './describe'
import { EggShape } from './EggDrawing'
import type { EggLook } from './look'
import { settled } from './outline'

/** An egg at its place; those of one `clump` are joined, the `chosen` one is marked. */
export type PlacedEgg = EggLook & {
  x: number
  y: number
  clump?: number | null
  chosen?: boolean
}

/** The box is drawn 480 by 320; an egg is about a fifth of its length. */
export const BOX = { width: 480, height: 320 }

/** Scale of an egg among `count`: many eggs lie closer. */
function scaleFor(count: number): number {
  if (count <= 4) return 1.22
  return count <= 8 ? 1.02 : count <= 12 ? 0.86 : 0.7
}

/** Small turns, the same every time: eggs do not lie in rank and file. */
function tilt(number: number): number {
  return (settled(number, 7) - 0.5) * 34
}

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

function EggPicture({ egg, scale }: { egg: PlacedEgg; scale: number }) {
  return (
    <svg
      viewBox="-50 -38 100 76"
      width="100%"
      style={{ display: 'block', overflow: 'visible' }}
      aria-hidden
    >
      <EggShape egg={egg} size={100 * scale} tilt={tilt(egg.number)} showNumber />
    </svg>
  )
}

/** Places a child of egg size over the drawing of the box. */
function EggSpot({ egg, scale, children }: { egg: PlacedEgg; scale: number; children: ReactNode }) {
  const share = (100 * scale) / BOX.width
  return (
    <div
      style={{
        position: 'absolute',
        left: `${egg.x * 100}%`,
        top: `${egg.y * 100}%`,
        width: `${share * 100}%`,
        transform: 'translate(-50%, -50%)',
      }}
    >
      {children}
    </div>
  )
}

function BoxFrame({
  medium,
  onGrid,
  eggs,
  children,
}: {
  medium: string
  onGrid: boolean
  eggs: PlacedEgg[]
  children: ReactNode
}) {
  return (
    <div
      style={{ position: 'relative', aspectRatio: `${BOX.width} / ${BOX.height}`, width: '100%' }}
    >
      <svg
        viewBox={`0 0 ${BOX.width} ${BOX.height}`}
        style={{ position: 'absolute', inset: 0, width: '100%', height: '100%' }}
        aria-hidden
      >
        <Tray medium={medium} fine onGrid={onGrid} />
        <Clumps eggs={eggs} />
      </svg>
      {children}
    </div>
  )
}

/** What joins the eggs of a clump: a broad seam from each to the next of its group. */
function Clumps({ eggs }: { eggs: PlacedEgg[] }) {
  const seams = eggs.flatMap((egg, i) => {
    if (egg.clump == null) return []
    const next = eggs.slice(i + 1).find((other) => other.clump === egg.clump)
    return next ? [{ from: egg, to: next }] : []
  })
  return (
    <g stroke={token('soft')} strokeWidth={34} strokeLinecap="round" opacity={0.5}>
      {seams.map(({ from, to }) => (
        <line
          key={`${from.number}-${to.number}`}
          x1={from.x * BOX.width}
          y1={from.y * BOX.height}
          x2={to.x * BOX.width}
          y2={to.y * BOX.height}
        />
      ))}
    </g>
  )
}

function spotButton(chosen: boolean) {
  return {
    display: 'block',
    width: '100%',
    background: 'none',
    border: 0,
    padding: 0,
    cursor: 'pointer',
    borderRadius: '50%',
    outline: chosen ? `3px solid ${token('yolk')}` : undefined,
    outlineOffset: chosen ? 5 : undefined,
  } as const
}

/** The tray: its walls, the medium in it, and the grid where eggs stand on one. */
function Tray({ medium, fine, onGrid }: { medium: string; fine: boolean; onGrid: boolean }) {
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
