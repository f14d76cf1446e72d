// @vitest-environment happy-dom
import { cleanup, fireEvent, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { shown } from '@/shared/clicked.testing'
import { JudgeForm } from './looks/JudgeForm'
import type { Case, Judgement } from './queries'
import { Torch } from './Torch'

afterEach(cleanup)

const egg = { egg: 1, day: 30, first_pip_hours: null } as Case

function judging(said: Judgement[] = []) {
  return shown(
    <JudgeForm egg={egg} asking={false} problem={null} onSay={(one) => said.push(one)} />,
  )
}

describe('judging an egg', () => {
  it('asks for all three before the truth is told', async () => {
    const said: Judgement[] = []
    const { hand } = judging(said)
    const tell = screen.getByRole('button')
    expect(tell).toHaveProperty('disabled', true)
    fireEvent.change(screen.getByRole('slider'), { target: { value: '20' } })
    await hand.click(screen.getByText('Not for its stage'))
    expect(tell).toHaveProperty('disabled', true)
    await hand.click(screen.getByText('Isolate it'))
    await hand.click(tell)
    expect(said).toEqual([{ chance_percent: 20, usual: false, act: 'isolate', candle_day: null }])
  })

  it('asks on which day only where it is to be candled, some days ahead at first', async () => {
    const said: Judgement[] = []
    const { hand } = judging(said)
    expect(screen.queryByRole('spinbutton')).toBeNull()
    fireEvent.change(screen.getByRole('slider'), { target: { value: '60' } })
    await hand.click(screen.getByText('As it should be'))
    await hand.click(screen.getByText('Candle later'))
    expect(screen.getByRole('spinbutton')).toHaveProperty('value', '33')
    await hand.click(screen.getByRole('button'))
    expect(said[0]).toMatchObject({ act: 'candle', candle_day: 33 })
  })

  it('offers help at the slit only once siblings are out', () => {
    judging()
    expect(screen.queryByText('Help at the slit')).toBeNull()
  })
})

describe('the torch', () => {
  it('is on while it is held, and after a short press until the next', () => {
    shown(<Torch path="/egg.webp" />)
    const button = screen.getByRole('button')
    const isOn = () => button.getAttribute('aria-pressed') === 'true'
    expect(isOn()).toBe(false)
    fireEvent.keyDown(button, { key: ' ' })
    expect(isOn()).toBe(true)
    fireEvent.keyUp(button, { key: ' ' })
    expect(isOn()).toBe(true)
    fireEvent.keyDown(button, { key: ' ' })
    expect(isOn()).toBe(false)
  })

  it('says so where its picture does not come', () => {
    const { container } = shown(<Torch path="/egg.webp" />)
    fireEvent.error(container.querySelector('img') as HTMLImageElement)
    expect(screen.getByText('Its picture is out of reach.')).toBeTruthy()
  })
})
