import { chakra, Menu } from '@chakra-ui/react'
import { useLocation, useNavigate } from 'react-router'
import { isIn, PLACES } from '@/shared/places'
import { PlaceLink, PlaceName } from './PlaceLink'

/** The bar under the thumb: the places used in the hand, and the way to the others. */
export function PlacesBar() {
  return (
    <chakra.nav
      aria-label="Places"
      hideFrom="xl"
      position="fixed"
      insetX={0}
      bottom={0}
      display="flex"
      justifyContent="space-around"
      bg="sheet"
      borderTop="1.5px solid"
      borderColor="line"
      zIndex={5}
      _print={{ display: 'none' }}
    >
      {PLACES.filter((place) => place.inHand).map((place) => (
        <PlaceLink key={place.to} place={place} />
      ))}
      <MorePlaces />
    </chakra.nav>
  )
}

/** The places that do not fit under the thumb. */
function MorePlaces() {
  const { pathname } = useLocation()
  const navigate = useNavigate()
  const others = PLACES.filter((place) => !place.inHand)
  return (
    <Menu.Root
      positioning={{ placement: 'top', gutter: 0, strategy: 'fixed' }}
      onSelect={({ value }) => navigate(value)}
    >
      <Menu.Trigger asChild>
        <PlaceName as="button" here={others.some((place) => isIn(place, pathname))}>
          More
        </PlaceName>
      </Menu.Trigger>
      <Menu.Positioner>
        <Menu.Content>
          {others.map((place) => (
            <Menu.Item key={place.to} value={place.to} asChild>
              <PlaceName here={isIn(place, pathname)}>{place.name}</PlaceName>
            </Menu.Item>
          ))}
        </Menu.Content>
      </Menu.Positioner>
    </Menu.Root>
  )
}
