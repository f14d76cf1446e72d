/**
 * The outline of an egg as numbers: a lying oval, pushed in where it is dented.
 * Drawn in a field of 100 by 76 with the egg's middle at 0,0.
 */
export type Point = { x: number; y: number }
export type Dent = { angle: number; width: number; depth: number }

export const HALF_LENGTH = 43
export const HALF_HEIGHT = 29
const STEPS = 144

/** A number in 0..1 that is the same for the same egg on every screen. */
export function settled(seed: number, salt = 0): number {
  const wave = Math.sin(seed * 127.1 + salt * 311.7) * 43758.5453
  return wave - Math.floor(wave)
}

/** Where an egg of this grade is pushed in; angles from the right, clockwise, top at -90°. */
export function dentsOf(grade: number, seed: number, allOver = false): Dent[] {
  const lean = (settled(seed) - 0.5) * 0.8
  const top = -Math.PI / 2 + lean
  const grades: Dent[][] = [
    [],
    [{ angle: top, width: 0.3, depth: 0.17 }],
    [
      { angle: top + 0.35, width: 0.34, depth: 0.3 },
      { angle: top - 0.75, width: 0.26, depth: 0.2 },
    ],
    [
      { angle: top + 0.1, width: 0.62, depth: 0.46 },
      { angle: top - 1.25, width: 0.3, depth: 0.18 },
    ],
    [
      { angle: -Math.PI / 2, width: 0.95, depth: 0.78 },
      { angle: -Math.PI / 2 + 1.25, width: 0.3, depth: 0.22 },
      { angle: -Math.PI / 2 - 1.3, width: 0.3, depth: 0.2 },
    ],
  ]
  const dents = grades[grade] ?? []
  if (!allOver || grade === 0) return dents
  const around = [0.5, 2.3, 3.4].map((angle, i) => ({
    angle: angle + settled(seed, i + 2) * 0.4,
    width: 0.24,
    depth: 0.07 + 0.04 * grade,
  }))
  return [...dents, ...around]
}

/** Outline points, clockwise from the right. */
export function outline(
  dents: Dent[],
  options: { rough?: boolean; nodule?: boolean; misshapen?: boolean; seed: number },
): Point[] {
  return Array.from({ length: STEPS }, (_, i) => {
    const angle = (i / STEPS) * 2 * Math.PI
    return edge(angle, dents, options)
  })
}

function edge(
  angle: number,
  dents: Dent[],
  options: { rough?: boolean; nodule?: boolean; misshapen?: boolean; seed: number },
): Point {
  let x = HALF_LENGTH * Math.cos(angle)
  let y = HALF_HEIGHT * Math.sin(angle) * (1 - 0.07 * Math.cos(angle))
  if (options.misshapen) {
    const waist = 1 - 0.3 * Math.exp(-(((x + 8) / 13) ** 2))
    // One end slimmer than the other, changing gently from left to right.
    y *= waist * (0.93 - 0.11 * Math.tanh(x / 12))
    x *= 1.06
  }
  let swell = 0
  if (options.rough) {
    swell += 1.1 * Math.sin(angle * 17 + options.seed) + 0.9 * Math.sin(angle * 29 + 2)
  }
  if (options.nodule) swell += 6 * Math.exp(-((apart(angle, 0.7) / 0.13) ** 2))
  const reach = Math.hypot(x, y)
  let pushed = 0
  for (const dent of dents) {
    // Depth is a share of the half height: a dent goes in, never out at the other side.
    const depth = dent.depth * HALF_HEIGHT
    pushed = Math.max(pushed, depth * Math.exp(-((apart(angle, dent.angle) / dent.width) ** 2)))
  }
  // Push straight towards the long axis, as a soft shell sinks, not towards the middle point.
  const y2 =
    y - Math.sign(y || -1) * Math.min(pushed, Math.abs(y) * 0.92) * Math.abs(y / reach || 0) ** 0.35
  const scale = 1 + swell / reach
  return { x: x * scale, y: y2 * scale }
}

function apart(a: number, b: number): number {
  const difference = Math.abs(a - b) % (2 * Math.PI)
  return Math.min(difference, 2 * Math.PI - difference)
}

export function pathOf(points: Point[]): string {
  return `M${points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`
}

/** The crease seen inside a dent: an arc below where the shell is pushed in. */
export function crease(dent: Dent): string {
  const at = (offset: number, inward: number): Point => {
    const angle = dent.angle + offset
    return {
      x: HALF_LENGTH * Math.cos(angle) * (1 - inward * 0.35),
      y: HALF_HEIGHT * Math.sin(angle) * (1 - inward),
    }
  }
  const inward = Math.min(0.92, dent.depth + 0.16)
  const from = at(-dent.width * 1.15, 0.1)
  const to = at(dent.width * 1.15, 0.1)
  const low = at(0, inward * 1.25)
  return `M${from.x.toFixed(1)} ${from.y.toFixed(1)}Q${low.x.toFixed(1)} ${low.y.toFixed(1)} ${to.x.toFixed(1)} ${to.y.toFixed(1)}`
}
