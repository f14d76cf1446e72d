import { describe, expect, it } from 'vitest'
import { describeEgg } from './describe'
import { ringsOf } from './look'
import { dentsOf, HALF_HEIGHT, HALF_LENGTH, outline, pathOf } from './outline'

const area = (grade: number, seed = 3) => {
  const points = outline(dentsOf(grade, seed), { seed })
  return (
    points.reduce((sum, p, i) => {
      const next = points[(i + 1) % points.length] ?? p
      return sum + p.x * next.y - next.x * p.y
    }, 0) / 2
  )
}

describe('the outline', () => {
  it('loses room with every grade, whatever the egg', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const areas = [0, 1, 2, 3, 4].map((grade) => area(grade, seed))
      for (let grade = 1; grade < 5; grade++) {
        expect(areas[grade]).toBeLessThan((areas[grade - 1] ?? 0) * 0.995)
      }
    }
  })

  it('stays within its field and is the same on every screen', () => {
    for (const grade of [0, 2, 4]) {
      const points = outline(dentsOf(grade, 5, true), { seed: 5, rough: true, nodule: true })
      for (const { x, y } of points) {
        expect(Math.abs(x)).toBeLessThan(HALF_LENGTH + 8)
        expect(Math.abs(y)).toBeLessThan(HALF_HEIGHT + 8)
      }
      expect(pathOf(points)).toBe(
        pathOf(outline(dentsOf(grade, 5, true), { seed: 5, rough: true, nodule: true })),
      )
      expect(pathOf(points)).not.toContain('NaN')
    }
  })
})

describe('the words of an egg', () => {
  it('say what the drawing shows', () => {
    expect(describeEgg({ number: 3, grade: 2, early: true }, 26)).toBe(
      'Egg 3, day 26, clear dents, early for its stage, watch',
    )
    expect(describeEgg({ number: 6, slug: true, grade: 2 })).toBe('Slug 6')
    expect(describeEgg({ number: 1, grade: null, shells: ['window'] })).toBe(
      'Egg 1, not looked at yet, window shell',
    )
  })

  it('say nothing of looks at an egg that is open, out or gone', () => {
    for (const fate of ['pipped', 'cut', 'out', 'removed', 'lost'] as const) {
      expect(describeEgg({ number: 1, grade: null, fate })).not.toContain('not looked at')
    }
    expect(describeEgg({ number: 1, grade: null, fate: 'out' })).toBe('Egg 1, out of the egg')
  })

  it('never leave a standing to colour alone', () => {
    expect(ringsOf({ number: 1, standing: 'sound' })).toBe(0)
    expect(ringsOf({ number: 1, standing: 'watch' })).toBe(1)
    expect(ringsOf({ number: 1, standing: 'failing' })).toBe(2)
    expect(ringsOf({ number: 1, standing: 'sound', early: true })).toBe(0)
  })
})
