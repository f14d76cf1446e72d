import { Menu } from '@chakra-ui/react'
import { useLocation, useNavigate } from 'react-router'
import { isIn, PLACES } from '@/shared/places'
import { PlaceName } from './PlaceLink'

const HELP = 'help'

/** The places that do not fit under the thumb; `open` when they were asked for already. */
export function MorePlaces({ open, onHelp }: { open: boolean; onHelp: () => void }) {
  const { pathname } = useLocation()
  const navigate = useNavigate()
  const others = PLACES.filter((place) => !place.inHand)
  return (
    <Menu.Root
      defaultOpen={open}
      positioning={{ placement: 'top', gutter: 0, strategy: 'fixed' }}
      onSelect={({ value }) => (value === HELP ? onHelp() : navigate(value))}
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
          <Menu.Item value={HELP} asChild>
            <PlaceName>Help</PlaceName>
          </Menu.Item>
        </Menu.Content>
      </Menu.Positioner>
    </Menu.Root>
  )
}
