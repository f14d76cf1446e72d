import { chakra } from '@chakra-ui/react'
import { Link, useLocation } from 'react-router'
import { isIn, type Place } from '@/shared/places'

/** How the way to a place looks, and how the place one is in. */
export const PlaceName = chakra('span', {
  base: {
    display: 'flex',
    alignItems: 'center',
    minHeight: { base: '60px', xl: '3.6rem' },
    px: { base: 2, xl: '0.35rem', '2xl': 3 },
    whiteSpace: 'nowrap',
    // Five stand side by side on a phone: letters grow with the reader's, as far as they fit.
    fontSize: { base: 'min(0.9rem, 5vw)', xl: '1em' },
    fontWeight: 'medium',
    color: 'soft',
    _hover: { color: 'ink' },
    _open: { color: 'ink' },
  },
  variants: {
    here: {
      true: {
        fontWeight: 'bold',
        color: 'ink',
        boxShadow: { base: 'inset 0 4px 0 0 currentColor', xl: 'inset 0 -4px 0 0 currentColor' },
      },
    },
  },
})

/** The way to a place. */
export function PlaceLink({ place }: { place: Place }) {
  const here = isIn(place, useLocation().pathname)
  return (
    <Link to={place.to} aria-current={here ? 'page' : undefined}>
      <PlaceName here={here}>{place.name}</PlaceName>
    </Link>
  )
}
