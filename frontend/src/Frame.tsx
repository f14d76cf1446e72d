import { chakra } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router'
import { EggDrawing } from './eggs/EggDrawing'
import { OutOfReach } from './shared/api/OutOfReach'
import { useLive } from './shared/climate/useLive'
import { HouseHealth } from './shared/house/HouseHealth'
import { KeysDialog } from './shared/keys/KeysDialog'
import { useKeyboard, useKeys } from './shared/keys/useKeys'
import { useDelivery } from './shared/offline/useDelivery'
import { SignIn } from './shared/people/SignIn'
import { mayComeIn, useSession } from './shared/people/session'
import { useChooseUnit } from './shared/people/temperatureUnit'
import { PLACES } from './shared/places'
import { toggleTheme, useTheme } from './shared/theme/useTheme'
import { Waiting } from './shared/ui/page'
import { useTemperatureUnit } from './shared/units'

/** What surrounds every place: the way to the others, the theme key, the unit, the keys. */
export function Frame() {
  const [keysShown, setKeysShown] = useState(false)
  const navigate = useNavigate()
  const session = useSession()
  const admitted = mayComeIn(session.data)
  useLive(session.data && admitted ? (session.data.name ?? '') : null)
  const waiting = useDelivery()
  const { pathname } = useLocation()
  useKeyboard()
  useKeys('frame', 'Everywhere', [
    ...PLACES.map(({ key, name, to }) => ({ keys: [key], what: name, act: () => navigate(to) })),
    { keys: ['n'], what: 'night room or light theme', act: toggleTheme },
    { keys: ['?'], what: 'these keys', act: () => setKeysShown(true) },
  ])
  useEffect(() => {
    // A new place starts at its top.
    if (pathname) window.scrollTo(0, 0)
  }, [pathname])
  return (
    <chakra.div minHeight="100dvh" display="flex" flexDirection="column">
      <chakra.a
        href="#place"
        position="absolute"
        left="-999px"
        _focus={{ left: 3, top: 2, bg: 'sheet', p: 3, zIndex: 10 }}
      >
        Skip to the page
      </chakra.a>
      <chakra.header
        display="flex"
        alignItems="center"
        gap={{ base: 2, md: 6 }}
        px={{ base: 4, md: 8 }}
        minHeight="60px"
        borderBottom="1.5px solid"
        borderColor="line"
        _print={{ display: 'none' }}
      >
        <NavLink to="/" aria-label="Sandboa, to Today">
          <chakra.span
            display="flex"
            alignItems="center"
            gap={2}
            fontWeight={800}
            fontSize="1.18em"
          >
            <EggDrawing egg={{ number: 2, grade: 0, topMark: 'top' }} size={34} decorative />
            Sandboa
          </chakra.span>
        </NavLink>
        <chakra.nav aria-label="Places" hideBelow="xl" display="flex" gap={1}>
          {PLACES.map((place) => (
            <PlaceLink key={place.to} to={place.to} name={place.name} />
          ))}
        </chakra.nav>
        <chakra.div marginStart="auto" display="flex" alignItems="center" gap={1}>
          {waiting > 0 && (
            <Link to="/round">
              <chakra.span fontWeight={750} color="yolkInk" textDecoration="underline" px={2}>
                {waiting} to deliver
              </chakra.span>
            </Link>
          )}
          {session.data?.name && (
            <NavLink to="/you">
              <chakra.span
                display="flex"
                alignItems="center"
                minHeight="44px"
                px={2}
                fontWeight={650}
                maxWidth={{ base: '6em', md: '8em' }}
                overflow="hidden"
                textOverflow="ellipsis"
                whiteSpace="nowrap"
              >
                {session.data.name}
              </chakra.span>
            </NavLink>
          )}
          <UnitSwitch />
          <ThemeSwitch />
          <chakra.span hideBelow="md">
            <HeaderButton label="Show the keys" onClick={() => setKeysShown(true)}>
              ?
            </HeaderButton>
          </chakra.span>
        </chakra.div>
      </chakra.header>
      <OutOfReach />
      <HouseHealth admitted={session.data !== undefined && admitted} session={session.data} />
      <chakra.main
        id="place"
        flex="1"
        width="100%"
        maxWidth="1240px"
        mx="auto"
        px={{ base: 4, md: 8 }}
        pt={{ base: 4, md: 6 }}
        pb="calc(var(--places-bar) + 44px + var(--toast-room, 0px))"
        _print={{ p: 0, maxWidth: 'none', m: 0 }}
      >
        {session.isPending ? <Waiting /> : admitted ? <Outlet /> : <SignIn />}
      </chakra.main>
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
          <PlaceLink key={place.to} to={place.to} name={place.name} />
        ))}
        <MorePlaces />
      </chakra.nav>
      <KeysDialog open={keysShown} onClose={() => setKeysShown(false)} />
    </chakra.div>
  )
}

/** The places that do not fit under the thumb. */
function MorePlaces() {
  const [shown, setShown] = useState(false)
  const { pathname } = useLocation()
  const others = PLACES.filter((place) => !place.inHand)
  const here = others.some((place) => pathname.startsWith(place.to))
  useEffect(() => {
    // Gone somewhere: the list has done its work.
    if (pathname) setShown(false)
  }, [pathname])
  return (
    <>
      <chakra.button
        type="button"
        aria-expanded={shown}
        aria-controls="more-places"
        onClick={() => setShown(!shown)}
        minHeight="60px"
        px={2}
        fontSize="0.9em"
        fontWeight={here ? 750 : 550}
        color={here || shown ? 'ink' : 'soft'}
        boxShadow={here ? 'inset 0 4px 0 0 currentColor' : 'none'}
      >
        More
      </chakra.button>
      {shown && (
        <chakra.div
          id="more-places"
          position="absolute"
          bottom="60px"
          insetX={0}
          display="grid"
          gridTemplateColumns="1fr 1fr"
          px={4}
          bg="sheet"
          borderTop="1.5px solid"
          borderColor="line"
        >
          {others.map((place) => (
            <PlaceLink key={place.to} to={place.to} name={place.name} />
          ))}
        </chakra.div>
      )}
    </>
  )
}

function PlaceLink({ to, name }: { to: string; name: string }) {
  return (
    <NavLink to={to} end={to === '/'}>
      {({ isActive }) => (
        <chakra.span
          display="flex"
          alignItems="center"
          minHeight={{ base: '60px', xl: '58px' }}
          px={{ base: 2, '2xl': 3 }}
          whiteSpace="nowrap"
          fontSize={{ base: '0.9em', xl: '1em' }}
          fontWeight={isActive ? 750 : 550}
          color={isActive ? 'ink' : 'soft'}
          boxShadow={{
            base: isActive ? 'inset 0 4px 0 0 currentColor' : 'none',
            xl: isActive ? 'inset 0 -4px 0 0 currentColor' : 'none',
          }}
          _hover={{ color: 'ink' }}
        >
          {name}
        </chakra.span>
      )}
    </NavLink>
  )
}

function HeaderButton({
  label,
  onClick,
  children,
}: {
  label: string
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <chakra.button
      type="button"
      aria-label={label}
      title={label}
      onClick={onClick}
      minHeight="44px"
      minWidth="44px"
      px={3}
      borderRadius="small"
      fontWeight={650}
      cursor="pointer"
      _hover={{ bg: 'faint' }}
    >
      {children}
    </chakra.button>
  )
}

function UnitSwitch() {
  const unit = useTemperatureUnit()
  const next = unit === 'C' ? 'F' : 'C'
  const { forHere } = useChooseUnit()
  return (
    <HeaderButton label={`°${unit}, switch to °${next}`} onClick={() => forHere(next)}>
      °{unit}
    </HeaderButton>
  )
}

function ThemeSwitch() {
  const theme = useTheme()
  return (
    <HeaderButton
      label={theme === 'night' ? 'To the light theme (n)' : 'To the night room theme (n)'}
      onClick={toggleTheme}
    >
      {theme === 'night' ? 'Light' : 'Night'}
    </HeaderButton>
  )
}
