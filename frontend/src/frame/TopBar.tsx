import { chakra, HStack, Span } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link, NavLink } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import { useChooseUnit } from '@/shared/people/temperatureUnit'
import { PLACES } from '@/shared/places'
import { TIGHT } from '@/shared/theme/tight'
import { toggleTheme, useTheme } from '@/shared/theme/useTheme'
import { useTemperatureUnit } from '@/shared/units'
import { PlaceLink } from './PlaceLink'

type Props = {
  /** Visits that wait on this device for a network. */
  waiting: number
  /** Who is signed in. */
  name: string | undefined
  onKeys: () => void
  onFind: () => void
}

/** The bar at the top: the places where they fit, what waits, who it is, and four switches. */
export function TopBar({ waiting, name, onKeys, onFind }: Props) {
  const brief = waiting > 0 || name ? 'none' : 'inline'
  return (
    <chakra.header
      display="flex"
      alignItems="center"
      gap={{ base: 2, md: 6, xl: 3, '2xl': 6 }}
      px={{ base: 4, md: 8, xl: 6, '2xl': 8 }}
      minHeight="3.75rem"
      borderBottom="1.5px solid"
      borderColor="line"
      _print={{ display: 'none' }}
    >
      <NavLink to="/" aria-label="Sandboa, to Today">
        <Span display="flex" alignItems="center" gap={2} fontWeight="heavy" fontSize="lead">
          <EggDrawing egg={{ number: 2, grade: 0, topMark: 'top' }} size={34} decorative />
          <Span
            // What waits, and who it is, is read before the name of the house's program.
            display={{ base: brief, md: 'inline', xl: brief, '2xl': 'inline' }}
            css={{ [TIGHT]: { display: 'none' } }}
          >
            Sandboa
          </Span>
        </Span>
      </NavLink>
      <chakra.nav aria-label="Places" hideBelow="xl" display="flex" gap={1}>
        {PLACES.map((place) => (
          <PlaceLink key={place.to} place={place} />
        ))}
      </chakra.nav>
      <HStack marginStart="auto" gap={1}>
        {waiting > 0 && (
          <Link to="/round">
            <Span fontWeight="bold" color="yolkInk" textDecoration="underline" px={2}>
              {waiting} to deliver
            </Span>
          </Link>
        )}
        {name && (
          <NavLink to="/you">
            <Span
              display="flex"
              alignItems="center"
              minHeight="thumbSmall"
              px={2}
              fontWeight="semibold"
              // Beside all places there is little room.
              maxWidth={{ base: '4em', md: '8em', xl: '4em', '2xl': '8em' }}
              css={{ [TIGHT]: { maxWidth: '4em' } }}
              overflow="hidden"
              textOverflow="ellipsis"
              whiteSpace="nowrap"
            >
              {name}
            </Span>
          </NavLink>
        )}
        <Switch label="Find anything (/)" onClick={onFind}>
          Find
        </Switch>
        <UnitSwitch />
        <ThemeSwitch />
        <Span hideBelow="md">
          <Switch label="Help and keys" onClick={onKeys}>
            ?
          </Switch>
        </Span>
      </HStack>
    </chakra.header>
  )
}

function UnitSwitch() {
  const unit = useTemperatureUnit()
  const next = unit === 'C' ? 'F' : 'C'
  const { forHere } = useChooseUnit()
  return (
    <Switch label={`°${unit}, switch to °${next}`} onClick={() => forHere(next)}>
      °{unit}
    </Switch>
  )
}

function ThemeSwitch() {
  const theme = useTheme()
  return (
    <Switch
      label={theme === 'night' ? 'To the light theme (n)' : 'To the night room theme (n)'}
      onClick={toggleTheme}
    >
      {theme === 'night' ? 'Light' : 'Night'}
    </Switch>
  )
}

type SwitchProps = { label: string; onClick: () => void; children: ReactNode }

function Switch({ label, onClick, children }: SwitchProps) {
  return (
    <chakra.button
      type="button"
      aria-label={label}
      title={label}
      onClick={onClick}
      minHeight="44px"
      minWidth="44px"
      flexShrink={0}
      overflowWrap="normal"
      px={{ base: 3, xl: 2, '2xl': 3 }}
      css={{ [TIGHT]: { px: 1 } }}
      borderRadius="small"
      fontWeight="semibold"
      cursor="pointer"
      _hover={{ bg: 'faint' }}
    >
      {children}
    </chakra.button>
  )
}
