import { useId } from 'react'
import { token } from '@/shared/theme/token'
import { CandledInside } from './CandledInside'
import { describeEgg } from './describe'
import { type EggLook, ringsOf, shortName } from './look'
import { crease, type Dent, dentsOf, HALF_HEIGHT, HALF_LENGTH, outline, pathOf } from './outline'
import { Mould, ShellMarks } from './ShellMarks'

type Props = {
  egg: EggLook
  /** Width in px, 14 (in a cabinet) to 220 (egg page). */
  size: number
  day?: number
  /** The drawing is part of something that says the same in words already. */
  decorative?: boolean
  showNumber?: boolean
}

/** An egg drawn as the keeper sees it, standing alone. */
export function EggDrawing({ egg, size, day, decorative, showNumber }: Props) {
  const frame = {
    width: size,
    height: size * 0.76,
    viewBox: '-50 -38 100 76',
    style: { display: 'block', overflow: 'visible' },
  } as const
  const shape = <EggShape egg={egg} size={size} showNumber={showNumber} />
  return decorative ? (
    <svg {...frame} aria-hidden="true">
      {shape}
    </svg>
  ) : (
    <svg {...frame} role="img" aria-label={describeEgg(egg, day)}>
      {shape}
    </svg>
  )
}

/** The egg's lines alone, around 0,0 in a field of 100 by 76: for drawings that hold many eggs. */
export function EggShape({
  egg,
  size,
  showNumber = false,
  tilt = 0,
}: {
  egg: EggLook
  size: number
  showNumber?: boolean | undefined
  tilt?: number
}) {
  const clip = useId()
  // Lines keep about 1.6 px whatever the size; small drawings leave the fine marks out.
  const line = Math.min(7, Math.max(1.4, 165 / size))
  const fine = size >= 40
  if (egg.slug) return <Slug line={line} egg={egg} showNumber={showNumber} size={size} />
  if (egg.fate === 'out') return <EmptyShell line={line} />
  const has = (mark: string) => egg.shells?.includes(mark) ?? false
  const dents = dentsOf(egg.grade ?? 0, egg.number, egg.dentsAllOver)
  const path = pathOf(
    outline(dents, {
      rough: has('rough'),
      nodule: has('nodule'),
      misshapen: has('misshapen'),
      seed: egg.number,
    }),
  )
  const gone = egg.fate === 'removed'
  return (
    <g>
      <g transform={tilt ? `rotate(${tilt})` : undefined}>
        {[1, 2].slice(0, ringsOf(egg)).map((at) => (
          <Ring key={at} at={at} line={line} />
        ))}
        {egg.supported && <Support line={line} />}
        <clipPath id={clip}>
          <path d={path} />
        </clipPath>
        <path
          d={path}
          fill={gone ? 'none' : token(fillOf(egg))}
          stroke={token('shellInk')}
          strokeWidth={has('thin') ? line * 0.6 : line}
          strokeDasharray={gone ? dashed(line) : undefined}
          strokeLinejoin="round"
        />
        {!gone && (
          <g clipPath={`url(#${clip})`}>
            <Surface egg={egg} dents={fine ? dents : []} line={line} fine={fine} />
          </g>
        )}
        {egg.topMark && fine && <TopMark place={egg.topMark} line={line} />}
        <FateMark egg={egg} line={line} />
      </g>
      {showNumber && <EggNumber egg={egg} size={size} />}
    </g>
  )
}

type SurfaceProps = { egg: EggLook; dents: Dent[]; line: number; fine: boolean }

/** What is seen on the egg, or inside it by torchlight. */
function Surface({ egg, dents, line, fine }: SurfaceProps) {
  return (
    <>
      {egg.candled ? (
        <CandledInside candled={egg.candled} seed={egg.number} line={line} />
      ) : (
        <ShellMarks egg={egg} line={line} fine={fine} />
      )}
      {egg.mould && <Mould grade={egg.mould} seed={egg.number} line={line} />}
      <Creases dents={dents} line={line} />
      {(egg.standing === 'probably lost' || egg.fate === 'lost') && <Hatching line={line} />}
    </>
  )
}

/** What became of the egg, where that is drawn over it. */
function FateMark({ egg, line }: { egg: EggLook; line: number }) {
  if (egg.fate === 'pipped') return <Slit line={line} />
  if (egg.fate === 'cut') return <Notch line={line} />
  if (egg.fate !== 'lost') return null
  return (
    <line x1={-46} y1={26} x2={46} y2={-26} stroke={token('vessel')} strokeWidth={line * 1.6} />
  )
}

/** The outline of what was taken out. */
function dashed(line: number): string {
  return `${line * 3} ${line * 2.4}`
}

function fillOf(egg: EggLook) {
  if (egg.candled) return 'glow'
  return egg.colour === 'yellowing' ? 'yellowed' : 'shell'
}

function Creases({ dents, line }: { dents: Dent[]; line: number }) {
  return dents.map((dent) => (
    <path
      key={dent.angle}
      d={crease(dent)}
      fill="none"
      stroke={token('shellInk')}
      strokeWidth={line * 0.8}
      strokeLinecap="round"
    />
  ))
}

function EggNumber({ egg, size }: { egg: EggLook; size: number }) {
  const high = Math.max(26, Math.min(36, 2000 / size))
  const shown = shortName(egg)
  // A slug is small, and a name with its clutch is long.
  const share = egg.slug ? 0.7 : shown.length > 2 ? 0.86 : 1
  return (
    <text
      x={0}
      y={egg.slug ? 0 : 7}
      textAnchor="middle"
      dominantBaseline="central"
      // As a style: the reset's `font: inherit` would win over attributes.
      style={{ fontSize: high * share, fontWeight: 700 }}
      fill={egg.candled ? token('paper') : token('shellInk')}
    >
      {shown}
    </text>
  )
}

function Ring({ at, line }: { at: number; line: number }) {
  const grow = 3.5 + line + (at - 1) * line * 2.6
  return (
    <ellipse
      rx={HALF_LENGTH + grow}
      ry={HALF_HEIGHT + grow}
      fill="none"
      stroke={token('vessel')}
      strokeWidth={line * 1.25}
    />
  )
}

function Slug({
  line,
  egg,
  showNumber,
  size,
}: {
  line: number
  egg: EggLook
  showNumber: boolean
  size: number
}) {
  const gone = egg.fate === 'removed'
  return (
    <g>
      <path
        d="M-27 0Q-20 -12 0 -13Q20 -12 27 0Q20 12 0 13Q-20 12 -27 0Z"
        fill={gone ? 'none' : token('yellowed')}
        stroke={token('shellInk')}
        strokeWidth={line}
        strokeDasharray={gone ? dashed(line) : undefined}
        strokeLinejoin="round"
      />
      {showNumber && <EggNumber egg={egg} size={size * 1.25} />}
    </g>
  )
}

function EmptyShell({ line }: { line: number }) {
  return (
    <g fill={token('shell')} stroke={token('shellInk')} strokeWidth={line} strokeLinejoin="round">
      <path d="M-6 -24C-34 -30 -50 -10 -44 4C-38 18 -20 20 -10 16L-16 8L-7 2L-15 -6L-5 -12Z" />
      <path d="M10 -16L4 -6L13 0L6 9L14 18C32 24 46 12 44 -2C42 -14 24 -22 10 -16Z" />
    </g>
  )
}

function Support({ line }: { line: number }) {
  return (
    <path
      d="M-30 30H30M-30 36H30M-24 30V36M-8 30V36M8 30V36M24 30V36"
      fill="none"
      stroke={token('soft')}
      strokeWidth={line}
    />
  )
}

function Hatching({ line }: { line: number }) {
  const step = Math.max(9, line * 3)
  const lines = Math.ceil(150 / step)
  return (
    <g stroke={token('shellInk')} strokeWidth={line * 0.7}>
      {Array.from({ length: lines }, (_, i) => {
        const x = -100 + i * step
        return <line key={i} x1={x} y1={40} x2={x + 60} y2={-40} />
      })}
    </g>
  )
}

function TopMark({ place, line }: { place: 'top' | 'side' | 'under'; line: number }) {
  const spots = { top: 'M0 -21V-11', side: 'M30 -4H39', under: 'M0 15V24' }
  return (
    <path
      d={spots[place]}
      stroke={token('shellInk')}
      strokeWidth={line * 1.3}
      strokeLinecap="round"
      strokeDasharray={place === 'under' ? '2.5 3' : undefined}
    />
  )
}

function Slit({ line }: { line: number }) {
  return (
    <g strokeLinecap="round" strokeLinejoin="round">
      <path
        d="M-11 -20L-4 -13L3 -18L10 -11"
        fill="none"
        stroke={token('shellInk')}
        strokeWidth={line * 2}
      />
      <path d="M3 -18L7 -25" fill="none" stroke={token('shellInk')} strokeWidth={line} />
    </g>
  )
}

function Notch({ line }: { line: number }) {
  return (
    <path
      d="M-9 -31V-15H9V-31"
      fill={token('paper')}
      stroke={token('shellInk')}
      strokeWidth={line}
      strokeLinejoin="miter"
    />
  )
}
