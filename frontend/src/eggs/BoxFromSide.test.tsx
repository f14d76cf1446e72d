import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { BoxFromSide, type WaterLevel } from './BoxFromSide'
import type { PlacedEgg } from './places'

const eggs: PlacedEgg[] = [1, 2, 3].map((number) => ({
  number,
  grade: 0,
  x: number / 4,
  y: number / 4,
}))
const drawn = (water: WaterLevel | null, lid: 'shut' | 'open' = 'shut') =>
  renderToStaticMarkup(<BoxFromSide eggs={eggs} water={water} lid={lid} trouble={false} />)
const heights = (svg: string) =>
  [...svg.matchAll(/<rect[^>]*height="([\d.]+)"/g)].map((m) => Number(m[1]))

describe('a box from its side', () => {
  it('fills its tray by the share of water left', () => {
    const fill = (share: number) =>
      heights(drawn({ share, share_low: share / 2, share_high: 1 }))[1] ?? Number.NaN
    const tray = heights(drawn(null))[0] ?? Number.NaN
    expect(fill(1)).toBeCloseTo(tray)
    expect(fill(0.5)).toBeCloseTo(tray / 2)
    expect(fill(0)).toBeCloseTo(0)
    // More than was ever in it cannot be drawn; less than nothing neither.
    expect(fill(1.3)).toBeCloseTo(tray)
    expect(fill(-0.2)).toBeCloseTo(0)
  })

  it('draws how low it may be as a dashed line below the level', () => {
    const svg = drawn({ share: 0.8, share_low: 0.4, share_high: 0.9 })
    const dashed = /<line[^>]*y1="([\d.]+)"[^>]*stroke-dasharray/.exec(svg)?.[1]
    const level = /<rect[^>]*y="([\d.]+)"[^>]*opacity="0.75"/.exec(svg)?.[1]
    expect(Number(dashed)).toBeGreaterThan(Number(level))
  })

  it('fills nothing where nobody knows', () => {
    expect(heights(drawn(null))).toHaveLength(1)
    expect(drawn(null)).not.toContain('stroke-dasharray="7 5"')
  })

  it('stands a little open when its closing is', () => {
    // The lid is the last line drawn.
    const lidEnds = (svg: string) =>
      /y1="([\d.]+)"[^>]*y2="([\d.]+)"[^>]*><\/line><\/svg>$/.exec(svg)?.slice(1, 3).map(Number)
    expect(lidEnds(drawn(null))).toEqual([31, 31])
    const [hinge, end] = lidEnds(drawn(null, 'open')) ?? []
    expect(end).toBeLessThan(hinge ?? 0)
  })
})
