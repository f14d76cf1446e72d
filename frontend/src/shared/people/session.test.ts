import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { done, Problem } from '../api/client'
import { ROLE_MEANS, ROLES } from './roles'
import { mayComeIn, mayRun } from './session'

const open = { sign_in: false, name: null, role: null, temperature_unit: 'C' as const }
const nobody = { sign_in: true, name: null, role: null, temperature_unit: 'C' as const }
const as = (role: 'keeper' | 'helper' | 'visitor') => ({
  sign_in: true,
  name: 'Rowan',
  role,
  temperature_unit: 'C' as const,
})

describe('who may come in', () => {
  it('is everybody as long as nobody has to sign in, then whoever has', () => {
    expect(mayComeIn(open)).toBe(true)
    expect(mayComeIn(nobody)).toBe(false)
    expect(mayComeIn(as('visitor'))).toBe(true)
  })

  it('asks nobody who is out of reach of the house', () => {
    expect(mayComeIn(undefined)).toBe(true)
    // But nothing that changes the house is offered before it has answered.
    expect(mayRun(undefined)).toBe(false)
  })

  it('lets keepers run the house, and whoever is at a machine without people', () => {
    expect([open, nobody, as('keeper'), as('helper'), as('visitor')].map(mayRun)).toEqual([
      true,
      false,
      true,
      false,
      false,
    ])
  })

  it('has words for every role', () => {
    expect(ROLES).toEqual(['keeper', 'helper', 'visitor'])
    for (const role of ROLES) expect(ROLE_MEANS[role]).not.toBe('')
  })
})

describe('an answer without a body', () => {
  beforeEach(() => vi.stubGlobal('localStorage', { getItem: () => 'C' }))
  afterEach(() => vi.unstubAllGlobals())

  it('is done when the house says so', async () => {
    const response = new Response(null, { status: 204 })
    await expect(done(Promise.resolve({ response }))).resolves.toBe(true)
  })

  it('is a problem in words when it is refused, or nobody answers', async () => {
    const error = { detail: 'Name and passphrase do not fit', errors: [] }
    const refused = done(Promise.resolve({ error, response: new Response(null, { status: 401 }) }))
    await expect(refused).rejects.toMatchObject({ status: 401, detail: error.detail })
    const silent = done(Promise.reject(new TypeError('network')))
    await expect(silent).rejects.toBeInstanceOf(Problem)
    await expect(silent).rejects.toMatchObject({ status: 0 })
  })
})
