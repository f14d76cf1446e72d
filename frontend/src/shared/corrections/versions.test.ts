import { describe, expect, it } from 'vitest'
import { differences, inWords, labelOf, merged } from './versions'

const opened = {
  name: 'Sorrel',
  code: null,
  hatch_year: 2019,
  method: { closing: 'lid', ratio: 1 },
}

describe('two versions of a form', () => {
  it('differ where their values do, and each keeps what only it changed', () => {
    const mine = { ...opened, code: 'S1' }
    const theirs = { ...opened, hatch_year: 2018, method: { closing: 'film', ratio: 1 } }
    expect(differences(opened, mine, theirs)).toEqual([
      { path: 'code', mine: 'S1', theirs: null, suggested: 'mine' },
      { path: 'hatch_year', mine: 2019, theirs: 2018, suggested: 'theirs' },
      { path: 'method.closing', mine: 'lid', theirs: 'film', suggested: 'theirs' },
    ])
  })

  it('are one where both changed the same, or left it empty in other ways', () => {
    const mine = { code: '', at: '2026-03-12T09:00:00+01:00', traits: [{ name: 'A', form: 'one' }] }
    const theirs = {
      code: null,
      at: '2026-03-12T08:00:00Z',
      traits: [{ form: 'one', name: 'A' }],
    }
    expect(differences({}, mine, theirs)).toEqual([])
  })

  it('say nothing of what the house does not tell', () => {
    expect(differences({}, { twins: true, note: 'a' }, { note: 'a' })).toEqual([])
  })

  it('differ where one of them has nothing in a part that both have', () => {
    const mine = { findings: { form: ['kink'], yolk: [] } }
    expect(differences({}, mine, { findings: {} }).map((row) => row.path)).toEqual([
      'findings.form',
    ])
  })

  it('become one by what is chosen, and the typed one stays as it was', () => {
    const mine = { name: 'Tansy', method: { closing: 'lid', ratio: 2 } }
    const whole = merged(
      mine,
      { name: 'Rue', method: { closing: 'film', ratio: 1 } },
      {
        name: 'mine',
        'method.closing': 'theirs',
      },
    )
    expect(whole).toEqual({ name: 'Tansy', method: { closing: 'film', ratio: 2 } })
    expect(mine.method.closing).toBe('lid')
  })

  it('can be taken where one of them lacks the part', () => {
    const findings = { form: ['kink'] }
    expect(merged({ findings: {} }, { findings }, { 'findings.form': 'theirs' })).toEqual({
      findings,
    })
  })
})

describe('a value in words', () => {
  it.each([
    ['set_point_c', 31.5, '31.5\u00a0°C'],
    ['water_g', 180, '180\u00a0g'],
    ['quiet_from_min', 90, '01:30'],
    ['retired', false, 'no'],
    ['traits', [{ name: 'Puzzle', form: 'one copy' }], 'Puzzle, one copy'],
    [
      'eggs',
      [
        { slug: false, shells: ['rough'] },
        { slug: true, shells: [] },
      ],
      '2-1 (1 rough, 2 slug)',
    ],
    ['code', '', 'nothing'],
  ])('%s', (path, value, words) => {
    expect(inWords(path, value, 'C')).toBe(words)
  })

  it('has a label from its path', () => {
    expect(labelOf('method.dry_mass_g')).toBe('Dry mass')
  })
})
