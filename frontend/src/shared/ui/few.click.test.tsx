// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { shown } from '@/shared/clicked.testing'
import { Few } from './Few'

afterEach(cleanup)

const few = (count: number) =>
  shown(
    <Few most={2} what="of them" list={(lines) => <ul>{lines}</ul>}>
      {Array.from({ length: count }, (_, n) => `${n}`).map((n) => (
        <li key={n}>{n}</li>
      ))}
    </Few>,
  )

describe('the first of many', () => {
  it('are shown alone until all are asked for', async () => {
    const { hand } = few(4)
    expect(screen.getAllByRole('listitem')).toHaveLength(2)
    await hand.click(screen.getByText('Show all 4 of them'))
    expect(screen.getAllByRole('listitem')).toHaveLength(4)
    expect(screen.queryByRole('button')).toBeNull()
  })

  it('are all shown where a line for the rest would take its room', () => {
    few(3)
    expect(screen.getAllByRole('listitem')).toHaveLength(3)
    expect(screen.queryByRole('button')).toBeNull()
  })
})
