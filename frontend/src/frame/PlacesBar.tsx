import { chakra } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import { PLACES } from '@/shared/places'
import { PlaceLink, PlaceName } from './PlaceLink'

/** A menu is much script: it comes once the page is drawn. */
const MorePlaces = lazy(() =>
  import('./MorePlaces').then(({ MorePlaces }) => ({ default: MorePlaces })),
)

/** The bar under the thumb: the places used in the hand, and the way to the others. */
export function PlacesBar({ onHelp }: { onHelp: () => void }) {
  const [asked, setAsked] = useState(false)
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
      <Suspense
        fallback={
          <PlaceName as="button" onClick={() => setAsked(true)}>
            More
          </PlaceName>
        }
      >
        <MorePlaces open={asked} onHelp={onHelp} />
      </Suspense>
    </chakra.nav>
  )
}
