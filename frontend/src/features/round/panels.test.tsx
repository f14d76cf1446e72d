import { describe, expect, it } from 'vitest'
import { markup, words } from '@/shared/markup.testing'
import { BoxPanel } from './BoxPanel'
import { BOX_SIGNS } from './boxSigns'
import { openFor } from './DoorClock'
import { openBox } from './draft'
import { dryingBox, dryingRound } from './dryingBox.testing'
import { drawnSign, EGG_ACTS, SIGN_GROUPS } from './signs'

describe('drawn choices', () => {
  it('have a picture of their own within a group', () => {
    for (const group of SIGN_GROUPS) {
      const drawn = group.choices.map((choice) => markup(drawnSign(choice, 3, [])))
      expect(new Set(drawn).size, group.kind).toBe(drawn.length)
    }
  })

  it('rise from a smelling egg, the fouler the more', () => {
    const smell = SIGN_GROUPS.find((group) => group.kind === 'smell')
    const waves = smell?.choices.map(
      (choice) => (markup(drawnSign(choice, 3, [])).match(/q-4 -4/g) ?? []).length,
    )
    expect(waves).toEqual([0, 1, 3])
  })

  it('of lid and medium differ too', () => {
    for (const kind of ['lid', 'medium']) {
      const group = BOX_SIGNS.find((g) => g.kind === kind)
      const drawn = group?.choices.map((choice) => markup(choice.drawing)) ?? []
      expect(new Set(drawn).size).toBe(4)
    }
  })

  it('never offer to turn an egg: that belongs to lay day alone', () => {
    expect(EGG_ACTS.map((act) => act.value as string)).not.toContain('turned')
  })
})

describe('the clock at the door', () => {
  it('counts minutes and seconds, and never backwards', () => {
    const at = (iso: string) => openFor('2026-06-14T12:00:00Z', new Date(iso))
    expect(at('2026-06-14T12:00:05Z')).toBe('0:05')
    expect(at('2026-06-14T12:03:42Z')).toBe('3:42')
    expect(at('2026-06-14T11:59:00Z')).toBe('0:00')
  })
})

describe('the box panel', () => {
  it('is drawn by what the house knows of the box', () => {
    markup(<p />) // puts a stand-in for the device's storage in place
    const draft = openBox(dryingBox, new Date('2026-06-14T12:00:00Z'))
    const panel = (changes = {}) => (
      <BoxPanel
        box={dryingBox}
        round={dryingRound}
        draft={{ ...draft, ...changes }}
        onChange={() => {}}
      />
    )
    expect(words(panel())).toContain('Add 45 ml at 31.3 °C, along the side')
    expect(words(panel())).toContain('(by its last weighing)')
    expect(words(panel({ mass: '1130' }))).not.toContain('by its last weighing')
    expect(words(panel({ mass: '1500' }))).toContain('That is more than the box had at set-up')
    expect(words(panel({ water: '45' }))).toContain('Added 45 ml')
    expect(words(panel({ signs: { smell: 'foul' } }))).toContain('keep what might live')
    expect(words(panel({ acts: ['grid removed'] }))).toContain("changed the box's weight by, g")
    expect(words(panel())).toContain('Grid out')
  })
})
