import { expect, it } from 'vitest'
import { openAt } from './lastOpen'

it('knows what a path shows', () => {
  expect(openAt('/clutches/26-04')).toEqual({ kind: 'clutch', code: '26-04', egg: null })
  expect(openAt('/clutches/26-04/eggs/3')).toEqual({ kind: 'clutch', code: '26-04', egg: 3 })
  expect(openAt('/clutches/26-04/card')).toEqual({ kind: 'clutch', code: '26-04', egg: null })
  expect(openAt('/hatch/26-01')).toEqual({ kind: 'clutch', code: '26-01', egg: null })
  expect(openAt('/round/26-04%20B')).toEqual({ kind: 'box', name: '26-04 B' })
  expect(openAt('/animals/7/correct')).toEqual({ kind: 'animal', id: 7 })
  expect(openAt('/hatchlings/12')).toEqual({ kind: 'animal', id: 12 })
})

it('knows what shows nothing a photo is of', () => {
  for (const path of ['/', '/round', '/animals', '/animals/new', '/settings/methods/3']) {
    expect(openAt(path), path).toBeNull()
  }
})
