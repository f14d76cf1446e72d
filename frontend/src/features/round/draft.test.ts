import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { toggled } from '@/shared/toggled'
import {
  type Draft,
  draftOf,
  exceptions,
  grams,
  type Limits,
  openBox,
  seenAt,
  seenNow,
  topUpFor,
  visitOf,
  withAllGraded,
  withEgg,
  withMove,
  withSign,
  wrongWith,
} from './draft'
import { nextValue } from './keys'
import { boxesDue, nextDue, type RoundBox } from './queries'
import { SIGN_GROUPS } from './signs'

const LIMITS: Limits = { heaviest: 1188, poured: [1, 2000] }
const NOON = new Date('2026-06-14T12:00:00Z')
let draft: Draft

beforeEach(() => {
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  })
  draft = openBox({ name: '26-04', seen_act: 17 } as RoundBox, NOON)
})

const group = (kind: string) => {
  const found = SIGN_GROUPS.find((g) => g.kind === kind)
  if (!found) throw new Error(kind)
  return found
}

describe('an open box', () => {
  it('begins as before, under a key of its own', () => {
    expect(exceptions(draft)).toBe(0)
    expect(draft.key).toMatch(/^[\w-]{8}\.[\w-]{21}$/)
    expect(openBox({ name: '26-04', seen_act: 17 } as RoundBox, NOON).key).not.toBe(draft.key)
  })

  it('holds only what differs, and lets go of it when it is taken back', () => {
    const one = withEgg(draft, '3', { grade: 2 })
    expect(exceptions(one)).toBe(1)
    expect(exceptions(withEgg(one, '3', { grade: undefined }))).toBe(0)
    const signed = withSign(draft, '3', 'mould', 'spot')
    expect(signed.eggs[3]?.signs).toEqual({ mould: 'spot' })
    expect(exceptions(withSign(signed, '3', 'mould', 'spot'))).toBe(0)
    // The draft before is as it was.
    expect(exceptions(draft)).toBe(0)
  })

  it('steps through a sign by its key and comes out as before', () => {
    const mould = group('mould')
    let at = draft
    const seen: (string | undefined)[] = []
    for (let press = 0; press < 5; press += 1) {
      at = nextValue(at, '2', mould)
      seen.push(at.eggs[2]?.signs.mould)
    }
    expect(seen).toEqual(['none', 'spot', 'patch', 'furry', undefined])
    expect(nextValue(draft, '2', group('vessels')).eggs[2]?.vessels).toBe('strong')
  })

  it('has a letter of its own for every sign, none that leads elsewhere', () => {
    const letters = SIGN_GROUPS.map((g) => g.letter)
    expect(new Set(letters).size).toBe(letters.length)
    for (const taken of ['t', 'r', 'c', 'a', 'l', 'b', 's', 'n', 'u', 'k', '?']) {
      expect(letters).not.toContain(taken)
    }
  })

  it('shows an egg as it is with what was tapped', () => {
    const egg = {
      number: 3,
      grade: 0,
      excess: 0,
      allowed_grade: 1,
      signs: { smell: 'off' },
      events: [],
      removed_at: null,
    } as unknown as Schemas['EggResponse']
    const now = seenNow(egg, { grade: 3, signs: { mould: 'patch' }, acts: ['removed'] })
    expect(now).toMatchObject({ grade: 3, excess: 2, signs: { smell: 'off', mould: 'patch' } })
    expect(now.removed_at).toBeTruthy()
    expect(seenNow(egg, { signs: {}, acts: [] })).toMatchObject({ grade: 0, excess: 0 })
  })
})

describe('grams', () => {
  const steps = [
    { from_g: 1177.5, add_g: 0, today_g: 0, split: false },
    { from_g: 1132.5, add_g: 45, today_g: 45, split: false },
    { from_g: 0, add_g: 100, today_g: 50, split: true },
  ]

  it('are told by the house for every mass', () => {
    expect(topUpFor(steps, 1180)?.add_g).toBe(0)
    expect(topUpFor(steps, 1134)?.add_g).toBe(45)
    expect(topUpFor(steps, 900)?.split).toBe(true)
    expect(topUpFor(steps, null)).toBeUndefined()
    expect(topUpFor([], 1134)).toBeUndefined()
    expect(topUpFor(steps, Number.NaN)).toBeUndefined()
  })

  it('are refused where they were typed', () => {
    const at = (mass: string, water: string) => wrongWith({ ...draft, mass, water }, LIMITS)?.field
    expect(at('', '')).toBeUndefined()
    expect(at('1134', '45')).toBeUndefined()
    expect(at('1189', '')).toBe('mass')
    expect(at('a lot', '')).toBe('mass')
    expect(at('1134', '0')).toBe('water')
    expect(at('1134', '2001')).toBe('water')
    expect(at('1134', 'some')).toBe('water')
    expect(wrongWith({ ...draft, change: 'a bit' }, LIMITS)?.field).toBe('change')
    const fresh = { medium: 'perlite', water: 'some', mass: '' }
    expect(wrongWith({ ...draft, fresh }, LIMITS)?.field).toBe('fresh')
    const out = withEgg(draft, '2', { acts: ['removed'], mass: 'heavy' })
    expect(wrongWith(out, LIMITS)?.field).toBe('egg')
    const weighed = withEgg(draft, '2', { acts: ['removed'], mass: '82' })
    expect(visitOf(weighed, NOON).eggs?.[0]?.mass_g).toBe(82)
    // Nobody knows what it weighed at set-up: nothing is too heavy.
    expect(wrongWith({ ...draft, mass: '5000' }, { heaviest: null, poured: null })).toBeNull()
    expect(grams('45,5')).toBe(45.5)
  })
})

const MORNING = '2026-06-12T08:00:00+02:00'
const NOON_SAID = NOON.toISOString()

describe('a visit', () => {
  it('is what was tapped, and comes back as it was when the house refuses it', () => {
    let full = withSign(withEgg(draft, '3', { grade: 2, acts: ['powdered'] }), '3', 'smell', 'off')
    full = withEgg(full, '5', { vessels: 'weak' })
    full = { ...full, mass: '1134', water: '45', acts: toggled(full.acts, 'lid wiped') }
    full = { ...full, signs: { lid: 'none' }, closing: 'sealed film', change: '-12' }
    full = { ...full, fresh: { medium: 'perlite', water: '200', mass: '' } }
    const visit = visitOf(full, new Date('2026-06-14T12:00:40Z'))
    expect(visit).toMatchObject({
      box: '26-04',
      seen_act: 17,
      rest_as_before: true,
      mass_g: 1134,
      water_g: 45,
      acts: ['lid wiped'],
      closing: 'sealed film',
      signs: [{ kind: 'lid', value: 'none' }],
      mass_change_g: -12,
      fresh: { medium: 'perlite', water_g: 200, mass_g: null },
    })
    expect(visit.eggs).toEqual([
      {
        number: 3,
        clutch: null,
        grade: 2,
        vessels: null,
        disc: null,
        shells: null,
        signs: [{ kind: 'smell', value: 'off' }],
        acts: ['powdered'],
        mass_g: null,
      },
      {
        number: 5,
        clutch: null,
        grade: null,
        vessels: 'weak',
        disc: null,
        shells: null,
        signs: [],
        acts: [],
        mass_g: null,
      },
    ])
    const { key, ...again } = draftOf(visit)
    const { key: first, ...was } = full
    // It happened when it was shut, however late it is mended.
    expect(again).toEqual({ ...was, closedAt: '2026-06-14T12:00:40.000Z' })
    expect(key).not.toBe(first)
  })

  it('entered for another moment is of that moment, and of now again', () => {
    const late = openBox({ name: '26-04', seen_act: 17 } as RoundBox, NOON, MORNING)
    expect(visitOf(late, NOON)).toMatchObject({ opened_at: MORNING, closed_at: MORNING })
    const now = seenAt(late, null, NOON)
    expect(visitOf(now, NOON)).toMatchObject({ opened_at: NOON_SAID, closed_at: NOON_SAID })
    expect(visitOf(seenAt(now, MORNING, NOON), NOON).closed_at).toBe(MORNING)
  })

  it('keeps where a disc lay that was not looked at again', () => {
    const visit = visitOf(withEgg(draft, '2', { vessels: 'weak', disc: 'side' }), NOON)
    expect(draftOf(visit).eggs['2']).toMatchObject({ vessels: 'weak', disc: 'side' })
  })
})

describe('eggs put into other boxes', () => {
  const fresh = { name: '26-04 B', kind: 'hatching' as const }

  it('are sent by box, whichever way they were tapped, and come back as they were', () => {
    let moved = withMove(draft, '1', fresh)
    moved = withMove(moved, '26-01/2', { to: '26-03' })
    moved = withMove(moved, '4', fresh)
    const visit = visitOf(moved, NOON)
    expect(visit.moved).toEqual([
      {
        eggs: [
          { number: 1, clutch: null },
          { number: 4, clutch: null },
        ],
        new: fresh,
      },
      { eggs: [{ number: 2, clutch: '26-01' }], to: '26-03' },
    ])
    expect(draftOf(visit).moves).toEqual(moved.moves)
  })

  it('count as exceptions, until they stay after all', () => {
    const moved = withMove(withEgg(draft, '1', { grade: 2 }), '1', fresh)
    expect(exceptions(moved)).toBe(1)
    expect(exceptions(withMove(moved, '2', fresh))).toBe(2)
    const stays = withMove(withMove(draft, '2', fresh), '2', null)
    expect(exceptions(stays)).toBe(0)
    expect(visitOf(stays, NOON).moved).toEqual([])
  })
})

describe('boxes due', () => {
  it('leaves out those a visit to is on its way', () => {
    const boxes = [
      { name: '26-01', due: [{}] },
      { name: '26-02', due: [] },
      { name: '26-03', due: [{}] },
    ] as unknown as RoundBox[]
    expect(boxesDue(boxes, ['26-01']).map((box) => box.name)).toEqual(['26-03'])
    // On the way round, and then from the beginning.
    expect(nextDue(boxes, [], '26-02')?.name).toBe('26-03')
    expect(nextDue(boxes, [], '26-03')?.name).toBe('26-01')
    expect(nextDue(boxes, ['26-03'], '26-01')).toBeUndefined()
  })
})

describe('all eggs alike', () => {
  const egg = (name: string, more = {}) =>
    ({ name, slug: false, removed_at: null, pipped_at: null, ...more }) as RoundBox['eggs'][number]

  it('grades each that can be, and leaves the others out', () => {
    const eggs = [
      egg('1'),
      egg('2'),
      egg('3', { slug: true }),
      egg('4', { removed_at: 'then' }),
      egg('5', { pipped_at: 'then' }),
      egg('6'),
    ]
    const moved = withMove(withEgg(draft, '2', { grade: 3 }), '6', { to: 'spare' })
    const alike = withAllGraded(moved, eggs, 1)
    expect(Object.entries(alike.eggs).map(([name, { grade }]) => [name, grade])).toEqual([
      ['1', 1],
      ['2', 1],
    ])
  })
})
