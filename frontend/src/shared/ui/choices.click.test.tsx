// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { Held, shown } from '@/shared/clicked.testing'
import { Chips } from './Chips'
import { Choices } from './Choices'
import { Pick } from './Pick'
import { Tick } from './Tick'

afterEach(cleanup)

const MOULD = ['none', 'spot', 'furry'].map((value) => ({ value, label: value }))

function mould(from: string | null, chosen: string[] = []) {
  return shown(
    <Held from={from}>
      {(value, set) => (
        <Choices
          legend="Mould"
          choices={MOULD}
          value={value}
          onChoose={(next) => {
            chosen.push(next)
            set(next)
          }}
        />
      )}
    </Held>,
  )
}

describe('one of a few', () => {
  it('is chosen by a tap on its card, and only one is', async () => {
    const { hand } = mould('none')
    await hand.click(screen.getByText('spot'))
    expect(screen.getByRole('radio', { name: 'spot' })).toHaveProperty('checked', true)
    expect(screen.getByRole('radio', { name: 'none' })).toHaveProperty('checked', false)
  })

  it('is one group, named by its legend', () => {
    mould(null)
    const group = screen.getByRole('radiogroup', { name: 'Mould' })
    expect(group.querySelectorAll('input:checked')).toHaveLength(0)
  })

  it('says a choice once, and none that was chosen already', async () => {
    const chosen: string[] = []
    const { hand } = mould('none', chosen)
    await hand.click(screen.getByText('furry'))
    await hand.click(screen.getByText('furry'))
    expect(chosen).toEqual(['furry'])
  })
})

describe('things done', () => {
  const chips = [
    { value: 'lid wiped', label: 'Lid wiped' },
    { value: 'aired', label: 'Aired' },
  ]
  const done = () =>
    shown(
      <Held<string[]> from={['aired']}>
        {(on, set) => (
          <Chips
            legend="Done at the box"
            chips={chips}
            on={on}
            onToggle={(value) =>
              set(on.includes(value) ? on.filter((o) => o !== value) : [...on, value])
            }
          />
        )}
      </Held>,
    )
  const on = () => screen.getAllByRole('checkbox').map((box) => (box as HTMLInputElement).checked)

  it('are switches of their own', async () => {
    const { hand } = done()
    expect(on()).toEqual([false, true])
    await hand.click(screen.getByText('Lid wiped'))
    expect(on()).toEqual([true, true])
    await hand.click(screen.getByText('Aired'))
    expect(on()).toEqual([true, false])
  })

  it('are switched by the space bar where the focus is', async () => {
    const { hand } = done()
    await hand.tab()
    await hand.keyboard(' ')
    expect(on()).toEqual([true, true])
  })
})

describe('a tick', () => {
  it('is set and taken away by its words as well as by its box', async () => {
    const { hand } = shown(
      <Held from={false}>
        {(checked, set) => <Tick label="It bled" checked={checked} onChange={set} />}
      </Held>,
    )
    const box = screen.getByRole('checkbox', { name: 'It bled' }) as HTMLInputElement
    await hand.click(screen.getByText('It bled'))
    expect(box.checked).toBe(true)
    await hand.click(box)
    expect(box.checked).toBe(false)
  })
})

describe('one of many', () => {
  it('is picked by its words and told by its value', async () => {
    const picked: string[] = []
    const { hand } = shown(
      <Pick
        label="First group"
        options={[
          { value: 'dam', label: 'by dam' },
          { value: 'sire', label: 'by sire' },
        ]}
        value="dam"
        onPick={(value) => picked.push(value)}
      />,
    )
    await hand.selectOptions(screen.getByLabelText('First group'), 'by sire')
    expect(picked).toEqual(['sire'])
  })
})
