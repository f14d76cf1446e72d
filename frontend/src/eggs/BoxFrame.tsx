import type { ReactNode } from 'react'
import { token } from '@/shared/theme/token'
import { EggShape } from './EggDrawing'
import { BOX, type PlacedEgg, tilt } from './places'
import { Clumps, Tray } from './Tray'

/** The box as large as its column, with children placed over the drawing. */
export function BoxFrame({
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
      data-box
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

export function EggPicture({ egg, scale }: { egg: PlacedEgg; scale: number }) {
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
export function EggSpot({
  egg,
  scale,
  children,
}: {
  egg: PlacedEgg
  scale: number
  children: ReactNode
}) {
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

export function spotButton(chosen: boolean) {
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
