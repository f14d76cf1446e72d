// @vitest-environment happy-dom
import { cleanup, screen, within } from '@testing-library/react'
import { useLocation } from 'react-router'
import { afterEach, describe, expect, it } from 'vitest'
import { shown } from '@/shared/clicked.testing'
import { PLACES } from '@/shared/places'
import { PlacesBar } from './PlacesBar'

afterEach(cleanup)

const Here = () => <output>{useLocation().pathname}</output>
const bar = (at = '/') =>
  shown(
    <>
      <PlacesBar onHelp={() => {}} />
      <Here />
    </>,
    at,
  )

describe('the bar of places', () => {
  it('leads to those used in the hand with one tap', async () => {
    const { hand } = bar()
    const places = screen.getByRole('navigation', { name: 'Places', hidden: true })
    const names = PLACES.filter((place) => place.inHand).map((place) => place.name)
    expect(
      within(places)
        .getAllByRole('link', { hidden: true })
        .map((a) => a.textContent),
    ).toEqual(names)
    await hand.click(screen.getByText('Round'))
    expect(screen.getByRole('status').textContent).toBe('/round')
  })

  it('has the others under More', async () => {
    const { hand } = bar()
    await hand.click(screen.getByText('More'))
    const others = await screen.findAllByRole('menuitem', { hidden: true })
    expect(others.map((place) => place.textContent)).toEqual([
      ...PLACES.filter((place) => !place.inHand).map((place) => place.name),
      'Help',
    ])
  })
})
