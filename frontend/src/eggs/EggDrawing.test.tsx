import { renderToStaticMarkup } from 'react-dom/server'
import { describe, expect, it } from 'vitest'
import { describeEgg } from './describe'
import { EggDrawing } from './EggDrawing'
import type { EggLook } from './look'

const drawn = (egg: Partial<EggLook>, size = 120) =>
  renderToStaticMarkup(<EggDrawing egg={{ number: 3, grade: 0, ...egg }} size={size} />)
const count = (svg: string, what: RegExp) => svg.match(what)?.length ?? 0
/** The first outline drawn: the shell. */
const shell = (svg: string) => /<path d="([^"]+)" fill="[^"]*"/.exec(svg)?.[1]

describe('a drawn egg', () => {
  it('has its words as the text of the picture', () => {
    const egg: EggLook = { number: 3, grade: 2, early: true, shells: ['rough'], mould: 'patch' }
    expect(drawn(egg)).toContain(`role="img" aria-label="${describeEgg(egg)}"`)
    const silent = renderToStaticMarkup(<EggDrawing egg={egg} size={120} decorative />)
    expect(silent).toContain('aria-hidden="true"')
    expect(silent).not.toContain('aria-label')
  })

  it('tells every standing by its form, never by colour alone', () => {
    const plain = drawn({ standing: 'sound' })
    const rings = (svg: string) => count(svg, /<ellipse/g) - count(plain, /<ellipse/g)
    expect(rings(drawn({ standing: 'watch' }))).toBe(1)
    expect(rings(drawn({ standing: 'failing' }))).toBe(2)
    const lost = drawn({ standing: 'probably lost' })
    expect(count(lost, /<line/g)).toBeGreaterThan(10)
    expect(count(plain, /<line/g)).toBe(0)
  })

  it('has another outline for every grade, and for rough and misshapen shells', () => {
    const looks: Partial<EggLook>[] = [
      ...[0, 1, 2, 3, 4].map((grade) => ({ grade })),
      { grade: 2, dentsAllOver: true },
      { shells: ['rough'] },
      { shells: ['nodule'] },
      { shells: ['misshapen'] },
    ]
    const outlines = looks.map((look) => shell(drawn(look)))
    expect(new Set(outlines).size).toBe(looks.length)
  })

  it('marks what was seen: each sign changes the picture', () => {
    const plain = drawn({})
    const signs: Partial<EggLook>[] = [
      { wet: true },
      { supported: true },
      { topMark: 'side' },
      { shells: ['window'] },
      { shells: ['stained'] },
      { shells: ['damp spot'] },
      { mould: 'spot' },
      { candled: { vessels: 'strong' } },
      { fate: 'pipped' },
      { fate: 'cut' },
      { fate: 'out' },
      { fate: 'removed' },
      { fate: 'lost' },
      { slug: true },
    ]
    const pictures = signs.map((sign) => drawn(sign).replace(/aria-label="[^"]*"/, ''))
    expect(new Set([plain.replace(/aria-label="[^"]*"/, ''), ...pictures]).size).toBe(
      signs.length + 1,
    )
  })

  it('leaves a dashed outline where an egg or a slug was taken out', () => {
    for (const slug of [false, true]) {
      expect(drawn({ slug, fate: 'removed' })).toContain('stroke-dasharray')
      expect(drawn({ slug })).not.toContain('stroke-dasharray')
    }
  })

  it('grows its mould with the grade', () => {
    const dots = (mould: NonNullable<EggLook['mould']>) => count(drawn({ mould }), /<circle/g)
    expect(dots('spot')).toBeLessThan(dots('patch'))
    expect(dots('patch')).toBeLessThan(dots('furry'))
  })

  it('shows by torchlight what is inside', () => {
    const inside = (vessels: 'strong' | 'weak' | 'broken' | 'none', more = {}) =>
      drawn({ candled: { vessels, ...more } }).replace(/aria-label="[^"]*"/, '')
    const four = (['strong', 'weak', 'broken', 'none'] as const).map((v) => inside(v))
    expect(new Set(four).size).toBe(4)
    expect(inside('strong', { disc: 'under' })).not.toBe(inside('strong', { disc: 'top' }))
    expect(inside('strong', { darkBody: true })).not.toBe(inside('strong'))
  })

  it('keeps its rings at 14 px, where fine marks are left out', () => {
    const small = drawn({ standing: 'failing', grade: 3, topMark: 'top' }, 14)
    expect(count(small, /<ellipse/g)).toBe(2)
    expect(count(small, /<path/g)).toBeLessThan(
      count(drawn({ standing: 'failing', grade: 3, topMark: 'top' }, 120), /<path/g),
    )
    expect(small).toContain('width="14"')
  })

  it('has its number on it when asked', () => {
    const egg: EggLook = { number: 7, grade: 1 }
    expect(renderToStaticMarkup(<EggDrawing egg={egg} size={60} showNumber />)).toContain('>7<')
    expect(renderToStaticMarkup(<EggDrawing egg={egg} size={60} />)).not.toContain('>7<')
  })
})
