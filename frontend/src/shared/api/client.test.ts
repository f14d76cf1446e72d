import { beforeEach, describe, expect, it, vi } from 'vitest'
import { zone } from '@/shared/dates'
import { answer, api, Problem, problemOf } from './client'

const response = (status: number) => new Response(null, { status })

beforeEach(() => {
  vi.stubGlobal('localStorage', { getItem: () => null })
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

describe('every request', () => {
  const sent = async () => {
    const asked: Request[] = []
    const house = async (request: Request) => {
      asked.push(request)
      return Response.json({})
    }
    await api.GET('/api/session', { baseUrl: 'http://house.test', fetch: house })
    return asked[0]?.headers
  }

  it('says where it is read, and in what unit only where this device has its own', async () => {
    const headers = await sent()
    expect(headers?.get('Sandboa-Zone')).toBe(zone())
    expect(headers?.has('Sandboa-Unit')).toBe(false)
  })

  it('says the unit of a device that reads in its own', async () => {
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => (key === 'sandboa.temperature' ? 'F' : null),
    })
    expect((await sent())?.get('Sandboa-Unit')).toBe('F')
  })
})
