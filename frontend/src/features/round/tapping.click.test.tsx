// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import type { Schemas } from '@/shared/api/client'
import { Held, shown } from '@/shared/clicked.testing'
import { BoxPanel } from './BoxPanel'
import { type ChangeDraft, type Draft, openBox } from './draft'
import { dryingBox, dryingRound } from './dryingBox.testing'
import { EggPanel } from './EggPanel'

afterEach(cleanup)

const EGG = {
  number: 1,
  name: '1',
  clutch: '26-04',
  clutch_id: 1,
  share: 0.43,
  slug: false,
  grade: 0,
  allowed_grade: 0,
  shells: [],
  signs: {},
  events: [],
  standing: 'sound',
} as unknown as Schemas['EggResponse']

function panel(of: (draft: Draft, onChange: ChangeDraft) => React.ReactNode) {
  const drafts: Draft[] = []
  const told = shown(
    <Held from={openBox(dryingBox, new Date('2026-06-14T12:00:00Z'))}>
      {(draft, set) =>
        of(draft, (becomes) => {
          const next = becomes(draft)
          drafts.push(next)
          set(next)
        })
      }
    </Held>,
  )
  return { ...told, last: () => drafts.at(-1) }
}

const eggPanel = () =>
  panel((draft, onChange) => (
    <EggPanel box={dryingBox} round={dryingRound} egg={EGG} draft={draft} onChange={onChange} />
  ))
const boxPanel = () =>
  panel((draft, onChange) => (
    <BoxPanel box={dryingBox} round={dryingRound} draft={draft} onChange={onChange} />
  ))

describe('an egg of the open box', () => {
  it('is an exception with one tap, and none any more with another', async () => {
    const { hand, last } = eggPanel()
    await hand.click(screen.getByText('clear dents'))
    expect(last()?.eggs[1]?.grade).toBe(2)
    await hand.click(screen.getByRole('button', { name: 'As before' }))
    expect(last()?.eggs).toEqual({})
  })

  it('keeps what was done to it beside what was seen of it', async () => {
    const { hand, last } = eggPanel()
    await hand.click(screen.getByText('one dimple'))
    await hand.click(screen.getByText('Supported'))
    await hand.click(screen.getByText('patch'))
    expect(last()?.eggs[1]).toMatchObject({
      grade: 1,
      acts: ['supported'],
      signs: { mould: 'patch' },
    })
  })

  it('asks what it weighed only when it is taken out', async () => {
    const { hand } = eggPanel()
    expect(screen.queryByLabelText('It weighs, g')).toBeNull()
    await hand.click(screen.getByText('Removed'))
    expect(screen.getByLabelText('It weighs, g')).toBeTruthy()
  })
})

describe('the open box', () => {
  it('takes the advised water with one tap, and gives it back with the next', async () => {
    const { hand, last } = boxPanel()
    await hand.click(screen.getByRole('button', { name: /Add 45 ml/ }))
    expect(last()?.water).toBe('45')
    await hand.click(screen.getByRole('button', { name: /Added 45 ml/ }))
    expect(last()?.water).toBe('')
  })

  it('says at the field what cannot be, and keeps it as it was typed', async () => {
    const { hand, last } = boxPanel()
    await hand.type(screen.getByLabelText('Box weighs, g'), '1300')
    expect(screen.getByText(/more than the box had at set-up/)).toBeTruthy()
    expect(last()?.mass).toBe('1300')
  })

  it('holds what was felt and done', async () => {
    const { hand, last } = boxPanel()
    await hand.click(screen.getByText('barely damp'))
    await hand.click(screen.getByText('Lid wiped'))
    expect(last()).toMatchObject({ signs: { medium: 'barely damp' }, acts: ['lid wiped'] })
  })
})
