import { beforeEach, describe, expect, it, vi } from 'vitest'
import { answer, Problem, problemOf } from './client'

const response = (status: number) => new Response(null, { status })

let unit = 'C'
beforeEach(() => {
  unit = 'C'
  vi.stubGlobal('localStorage', { getItem: () => unit })
})

describe('an answer', () => {
  it('is its data', async () => {
    const request = Promise.resolve({ data: { code: '26-04' }, response: response(200) })
    expect(await answer(request)).toEqual({ code: '26-04' })
  })

  it('refused is a problem in the words of the house, with its fields', async () => {
    const error = {
      detail: '40 eggs is outside 1 to 20',
      errors: [{ field: 'eggs', reason: '40 eggs is outside 1 to 20' }],
    }
    const refused = answer(Promise.resolve({ error, response: response(422) }))
    await expect(refused).rejects.toMatchObject({
      detail: '40 eggs is outside 1 to 20',
      status: 422,
      fields: [{ field: 'eggs' }],
    })
  })

  it('refused speaks of temperatures in the unit of the keeper', () => {
    unit = 'F'
    const reason = 'set point 12 °C is outside 24 to 36 °C'
    const problem = problemOf({ detail: reason, errors: [{ field: 'set_point_c', reason }] }, 422)
    const inF = 'set point 53.6\u00a0°F is outside 75.2 to 96.8\u00a0°F'
    expect(problem).toMatchObject({
      detail: inF,
      fields: [{ field: 'set_point_c', reason: inF }],
    })
  })

  it('that never came says that nothing typed is lost', async () => {
    const silent = answer(Promise.reject(new TypeError('network')))
    await expect(silent).rejects.toBeInstanceOf(Problem)
    await expect(silent).rejects.toMatchObject({ status: 0, fields: [] })
    await expect(silent).rejects.toThrow('still here')
  })

  it('of another shape still has words', () => {
    for (const body of [undefined, null, 'oops', { detail: 7 }, { errors: 'none' }]) {
      expect(problemOf(body, 500).detail).toBe('That did not work.')
      expect(problemOf(body, 500).fields).toEqual([])
    }
  })
})
