import { describe, expect, it } from 'vitest'
import { found, quantityOf, readSetting, type Setting } from './numbers'

const setting = (changes: Partial<Setting>): Setting => ({
  name: 'climate.swing_c',
  label: 'Told when a day swings by more than',
  unit: '°C',
  value: 2,
  default: 2,
  low: 0.8,
  high: 5,
  reason: 'Up to 1 °C is good.',
  group: 'Climate',
  quantity: 'plain',
  deep: false,
  learned: null,
  learned_from: 0,
  revision: 'x',
  ...changes,
})

describe('a number of the house', () => {
  it('is found by every word of its name, group or reason', () => {
    const all = [setting({}), setting({ label: 'Air a box below', group: 'Water and air' })]
    expect(found(all, 'swing climate')).toEqual([all[0]])
    expect(found(all, 'AIR box')).toEqual([all[1]])
    expect(found(all, 'swing oxygen')).toEqual([])
    expect(found(all, ' ')).toEqual(all)
  })

  it('is told and read in the units of the reader', () => {
    const warm = setting({ quantity: 'temperature', value: 33.5 })
    const apart = setting({ quantity: 'temperature difference' })
    const share = setting({ quantity: 'share', unit: 'of oxygen', value: 0.17 })
    expect(quantityOf(warm, 'F').shown(33.5)).toBe('92.3')
    expect(quantityOf(apart, 'F').shown(2)).toBe('3.6')
    expect(quantityOf(share, 'C').shown(0.17)).toBe('17')
    expect(quantityOf(share, 'C').unit).toBe('% of oxygen')
    expect(readSetting(warm, '92.3', 'F')).toBe(33.5)
    expect(readSetting(apart, '3.6', 'F')).toBe(2)
    expect(readSetting(share, '17', 'C')).toBe(0.17)
    expect(readSetting(setting({}), 'two', 'C')).toBeNaN()
  })
})
