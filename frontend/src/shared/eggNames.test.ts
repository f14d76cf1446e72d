import { describe, expect, it } from 'vitest'
import { eggPath, eggRef, nameOfRef, nextBoxName } from './eggNames'

describe('names of eggs in a box', () => {
  it('are numbers, and carry the clutch where eggs of several lie', () => {
    expect(eggRef('3')).toEqual({ number: 3, clutch: null })
    expect(eggRef('26-04/12')).toEqual({ number: 12, clutch: '26-04' })
    for (const name of ['3', '26-04/12']) expect(nameOfRef(eggRef(name))).toBe(name)
  })

  it('lead to the page of the egg in its own clutch', () => {
    expect(eggPath('3', '26-01')).toBe('/clutches/26-01/eggs/3')
    expect(eggPath('26-04/12', '26-01')).toBe('/clutches/26-04/eggs/12')
  })
})

describe('the next name of a box', () => {
  it('is the next letter nobody has, of whatever letter is asked from', () => {
    expect(nextBoxName('26-04', ['26-04'])).toBe('26-04 B')
    expect(nextBoxName('26-04 B', ['26-04', '26-04 b'])).toBe('26-04 C')
  })

  it('is still free when all letters are taken', () => {
    const letters = [...'BCDEFGHIJKLMNOPQRSTUVWXYZ'].map((letter) => `26-04 ${letter}`)
    const name = nextBoxName('26-04', ['26-04', ...letters])
    expect(letters).not.toContain(name)
  })
})
