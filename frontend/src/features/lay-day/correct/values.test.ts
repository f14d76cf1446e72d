import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { countOf, fieldOf, type LayValues, requestOf, valuesOf } from './values'

const typed: LayValues = {
  laidAt: '2026-06-14T18:30',
  medium: 'vermiculite',
  water: '',
  closing: 'lid with 1-2 pin holes',
  dam: 'Costmary',
  code: '26-04',
  sire: ' ',
  count: '2-1',
  eggs: [
    { x: 0.3, y: 0.4, slug: false, shells: ['rough'] },
    { x: 0.6, y: 0.4, slug: true, shells: [] },
  ],
  box: '26-04',
  cabinet: 'North',
  shelf: 'lower',
  setPoint: '31,5',
  dryMass: '200',
}

const clutch = {
  code: '26-04',
  dam: 'Yarrow',
  sire: null,
  laid_at: '2026-05-19T16:06:00Z',
  count: '1-0',
  // Since then the egg was put into another box, on another medium.
  eggs: [{ number: 1, x: 0.5, y: 0.5, slug: false, shells: ['window'], grade: 2 }],
  box: '26-05',
  boxes: [{ name: '26-05', cabinet: 'Small', shelf: 'shelf', medium: 'vermiculite' }],
  set_point_at_lay_c: 31.5,
  as_laid: {
    eggs: [{ x: 0.3, y: 0.4, slug: false, shells: ['window'] }],
    boxes: ['26-04'],
    box: '26-04',
    cabinet: 'North',
    shelf: 'lower',
    medium: 'perlite',
    closing: 'loose lid',
    dry_mass_g: null,
    water_g: 120,
  },
} as unknown as Schemas['ClutchResponse']

describe('the request of a lay form', () => {
  it('leaves unknown what was left empty', () => {
    const asked = requestOf(typed, 'C')
    expect(asked.sire).toBeNull()
    expect(asked.dry_mass_g).toBe(200)
    expect(asked.water_g).toBeNull()
    expect(asked.eggs).toHaveLength(2)
  })

  it('is the same in either unit, and a unit typed wins', () => {
    expect(requestOf(typed, 'C').set_point_c).toBe(31.5)
    expect(requestOf({ ...typed, setPoint: '88.7' }, 'F').set_point_c).toBe(31.5)
    expect(requestOf({ ...typed, setPoint: '88.7F' }, 'C').set_point_c).toBe(31.5)
  })

  it('carries the offset of the keeper on the day of laying', () => {
    expect(requestOf(typed, 'C').laid_at).toMatch(/^2026-06-14T18:30:00(Z|[+-]\d\d:\d\d)$/)
  })
})

describe('a correction', () => {
  it('starts from what was recorded, with the set point of lay day', () => {
    const values = valuesOf(clutch, 'C')
    expect(values.setPoint).toBe('31.5')
    expect(values.dryMass).toBe('')
    expect(values.eggs).toEqual([{ x: 0.3, y: 0.4, slug: false, shells: ['window'], box: '26-04' }])
    expect(valuesOf(clutch, 'F').setPoint).toBe('88.7')
  })

  it('sent unchanged says what was recorded', () => {
    const asked = requestOf(valuesOf(clutch, 'F'), 'F')
    expect(Date.parse(asked.laid_at)).toBe(Date.parse(clutch.laid_at))
    expect(asked.eggs).toEqual(clutch.as_laid.eggs)
    expect(asked).toMatchObject({
      medium: 'perlite',
      shelf: 'lower',
      dam: 'Yarrow',
      sire: null,
      set_point_c: 31.5,
      water_g: 120,
    })
  })
})

describe('refused fields', () => {
  it('find their place on the form', () => {
    expect(fieldOf('laid_at')).toBe('laidAt')
    expect(fieldOf('eggs.3.x')).toBe('count')
    expect(fieldOf('set point')).toBe('setPoint')
    expect(fieldOf('moon')).toBeUndefined()
  })

  it('count eggs as on the card', () => {
    expect(countOf(typed.eggs)).toBe('2-1')
    expect(countOf([])).toBe('0-0')
  })
})
