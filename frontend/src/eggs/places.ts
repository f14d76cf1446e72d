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
export function scaleFor(count: number): number {
  if (count <= 4) return 1.22
  return count <= 8 ? 1.02 : count <= 12 ? 0.86 : 0.7
}

/** Small turns, the same every time: eggs do not lie in rank and file. */
export function tilt(number: number): number {
  return (settled(number, 7) - 0.5) * 34
}
