import { chakra, Flex, SkipNavLink } from '@chakra-ui/react'
import { lazy, Suspense, useEffect, useState } from 'react'
import { Outlet, useLocation, useNavigate } from 'react-router'
import { OutOfReach } from '@/shared/api/OutOfReach'
import { useLive } from '@/shared/climate/useLive'
import { HouseHealth } from '@/shared/house/HouseHealth'
import { useKeyboard, useKeys } from '@/shared/keys/useKeys'
import { MomentBar } from '@/shared/moment/MomentBar'
import { useDelivery } from '@/shared/offline/useDelivery'
import { mayComeIn, useSession } from '@/shared/people/session'
import { noteOpen } from '@/shared/photos/lastOpen'
import { PLACES, WALL } from '@/shared/places'
import { toggleTheme } from '@/shared/theme/useTheme'
import { Waiting } from '@/shared/ui/page'
import { PlacesBar } from './PlacesBar'
import { Safe } from './Safe'
import { TopBar } from './TopBar'

/** A form, and so all that forms are made of: not among what Today needs first. */
const SignIn = lazy(() =>
  import('@/shared/people/SignIn').then(({ SignIn }) => ({ default: SignIn })),
)

const KeysDialog = lazy(() =>
  import('@/shared/keys/KeysDialog').then(({ KeysDialog }) => ({ default: KeysDialog })),
)

const FindDialog = lazy(() =>
  import('@/shared/finding/FindDialog').then(({ FindDialog }) => ({ default: FindDialog })),
)

/** A dialog whose script comes when it is first asked for. */
function useDialog() {
  const [open, setOpen] = useState(false)
  const [asked, setAsked] = useState(false)
  return {
    open,
    asked,
    show: () => {
      setAsked(true)
      setOpen(true)
    },
    hide: () => setOpen(false),
  }
}

/** What surrounds every place: the ways to the others, the switches, the keys. */
export function Frame() {
  const keys = useDialog()
  const finding = useDialog()
  const navigate = useNavigate()
  const session = useSession()
  const admitted = mayComeIn(session.data)
  useLive(session.data && admitted ? (session.data.name ?? '') : null)
  const waiting = useDelivery()
  const { pathname } = useLocation()
  useKeyboard()
  useKeys('frame', 'Everywhere', [
    ...PLACES.map(({ key, name, to }) => ({ keys: [key], what: name, act: () => navigate(to) })),
    { keys: ['/'], what: 'find anything', act: finding.show },
    { keys: ['n'], what: 'night room or light theme', act: toggleTheme },
    { keys: ['?'], what: 'help for this place, and these keys', act: keys.show },
  ])
  useEffect(() => {
    // A new place starts at its top.
    if (pathname) window.scrollTo(0, 0)
    noteOpen(pathname)
  }, [pathname])
  const dialogs = (
    <Suspense>
      {keys.asked && <KeysDialog open={keys.open} onClose={keys.hide} />}
      {finding.asked && <FindDialog open={finding.open} onClose={finding.hide} />}
    </Suspense>
  )
  if (pathname === WALL && admitted) {
    return (
      <>
        <OutOfReach />
        <chakra.main id="place">
          <Safe at={pathname}>
            <Suspense fallback={<Waiting />}>
              <Outlet />
            </Suspense>
          </Safe>
        </chakra.main>
        {dialogs}
      </>
    )
  }
  return (
    <Flex minHeight="100dvh" direction="column">
      <SkipNavLink id="place">Skip to the page</SkipNavLink>
      <TopBar
        waiting={waiting}
        name={session.data?.name ?? undefined}
        onKeys={keys.show}
        onFind={finding.show}
      />
      <OutOfReach />
      <MomentBar />
      <HouseHealth admitted={session.data !== undefined && admitted} session={session.data} />
      <chakra.main
        // Where the skip link leads; an element of its own would print as a page of its own.
        id="place"
        tabIndex={-1}
        outline="none"
        flex="1"
        width="100%"
        maxWidth="73rem"
        mx="auto"
        px={{ base: 4, md: 8 }}
        pt={{ base: 4, md: 6 }}
        pb="calc(var(--places-bar) + 2.75rem + var(--toast-room, 0px))"
        _print={{ p: 0, maxWidth: 'none', m: 0 }}
      >
        <Safe at={pathname}>
          <Suspense fallback={<Waiting />}>
            {session.isPending ? <Waiting /> : admitted ? <Outlet /> : <SignIn />}
          </Suspense>
        </Safe>
      </chakra.main>
      <PlacesBar onHelp={keys.show} />
      {dialogs}
    </Flex>
  )
}
