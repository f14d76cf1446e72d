// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { shown } from '@/shared/clicked.testing'
import { Narrow } from './Narrow'
import type { Facet } from './narrowing'
import { useNarrowing } from './useNarrowing'

afterEach(cleanup)

const EGGS = ['firm', 'firm', 'dented'].map((state, at) => ({ name: `egg ${at + 1}`, state }))
const STATE: Facet<(typeof EGGS)[number]> = {
  key: 'state',
  legend: 'State',
  valuesOf: ({ state }) => [state],
}

function Eggs({ glance = 2 }: { glance?: number }) {
  const narrowing = useNarrowing(EGGS, { glance, facets: [STATE], textOf: ({ name }) => name })
  return (
    <>
      <Narrow narrowing={narrowing} what="eggs" of="3 eggs" />
      <ul>
        {narrowing.items.map(({ name }) => (
          <li key={name}>{name}</li>
        ))}
      </ul>
    </>
  )
}

const names = () => screen.getAllByRole('listitem').map(({ textContent }) => textContent)

describe('a list that is narrowed', () => {
  it('shows what a count counted, and all again with another tap on it', async () => {
    const { hand } = shown(<Eggs />)
    await hand.click(screen.getByRole('button', { name: 'firm 2' }))
    expect(names()).toEqual(['egg 1', 'egg 2'])
    await hand.click(screen.getByRole('button', { name: 'firm 2', pressed: true }))
    expect(names()).toEqual(['egg 1', 'egg 2', 'egg 3'])
  })

  it('holds every letter that is typed, and gives them up with "Show all"', async () => {
    const { hand } = shown(<Eggs />)
    const field = screen.getByRole('searchbox') as HTMLInputElement
    await hand.type(field, 'egg 3')
    expect(field.value).toBe('egg 3')
    expect(names()).toEqual(['egg 3'])
    await hand.click(screen.getByRole('button', { name: 'Show all' }))
    expect(field.value).toBe('')
    expect(names()).toHaveLength(3)
    await hand.type(field, '2')
    expect(names()).toEqual(['egg 2'])
  })

  it('counts what a tap would leave: by what is typed, not by what was tapped itself', async () => {
    const { hand } = shown(<Eggs />)
    await hand.click(screen.getByRole('button', { name: 'firm 2' }))
    expect(screen.getByRole('button', { name: 'dented 1' })).toBeTruthy()
    await hand.type(screen.getByRole('searchbox'), '2')
    expect(screen.getByRole('button', { name: 'firm 1' })).toBeTruthy()
    expect(screen.getByRole('button', { name: 'dented 0' })).toBeTruthy()
  })

  it('shows all of a few, whatever the address says', () => {
    shown(<Eggs glance={3} />, '/?state=dented')
    expect(names()).toHaveLength(3)
    expect(screen.queryByRole('search')).toBeNull()
  })

  it('opens as its address says', () => {
    shown(<Eggs />, '/?state=dented&with=egg')
    expect(names()).toEqual(['egg 3'])
    expect(screen.getByRole('status').textContent).toContain('1 of 3 eggs shown')
  })
})
