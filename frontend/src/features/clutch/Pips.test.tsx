import { describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { words } from '@/shared/markup.testing'
import { Pips } from './Pips'

const egg = (number: number, more = {}) => ({
  number,
  slug: false,
  pipped_at: null,
  emerged_at: null,
  ...more,
})
const clutch = {
  code: '26-01',
  finished_at: null,
  eggs: [
    egg(1, { pipped_at: '2026-06-13T08:00:00' }),
    egg(2, { pipped_at: '2026-06-12T08:00:00', emerged_at: '2026-06-13T20:00:00' }),
    egg(3, { slug: true }),
    egg(4),
  ],
} as unknown as Schemas['ClutchResponse']

describe('pips at the clutch', () => {
  it('tell who has pipped and who is out, and lead to where it is recorded', () => {
    const told = words(<Pips clutch={clutch} />)
    expect(told).toContain('Egg 1 pipped 13 Jun 08:00, Egg 2 out 13 Jun 20:00.')
    expect(told).toContain('Hatch watch of this clutch')
  })

  it('of a closed clutch lead to its hatchlings', () => {
    const told = words(<Pips clutch={{ ...clutch, finished_at: '2026-06-14T09:00:00' }} />)
    expect(told).toContain('Closed 14 Jun 09:00')
    expect(told).toContain('Hatchlings and fates')
  })
})
