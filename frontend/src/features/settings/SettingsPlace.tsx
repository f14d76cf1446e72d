import { Box, chakra, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, Navigate, useLocation } from 'react-router'
import { useToday } from '@/shared/api/queries'
import { mayRun, useSession } from '@/shared/people/session'
import Senders from '@/shared/senders/Senders'
import { addressOf, foundParts, PARTS, type Part } from '@/shared/settings/parts'
import { Fetching, Notice, Title } from '@/shared/ui/page'
import { useTemperatureUnit } from '@/shared/units'
import { found, quantityOf, type Setting } from './numbers'
import { settingsQuery } from './queries'
import { SearchField } from './SearchField'

/** The parts of Settings, and one field that finds any of them and any number. */
export function Component() {
  const session = useSession()
  const { hash } = useLocation()
  const [sought, setSought] = useState('')
  const today = useToday()
  // Links of before lead to a mark in one long page.
  if (hash) return <Navigate to={addressOf(decodeURIComponent(hash.slice(1)))} replace />
  const runs = mayRun(session.data)
  const parts = PARTS.filter((part) => runs || !part.runs)
  const matching = foundParts(parts, sought)
  return (
    <Stack gap={6} maxWidth="53.75rem">
      <Title>Settings</Title>
      {session.data && !runs && (
        <Notice>Only a keeper may change how the house is run; you may look.</Notice>
      )}
      {today.data && <Senders today={today.data} />}
      <SearchField
        label="Find a setting"
        examples="passphrase, backup, swing, mould"
        sought={sought}
        onSought={setSought}
      />
      {matching.length > 0 && (
        <chakra.nav aria-label="Parts of Settings">
          <ul>
            {matching.map((part) => (
              <PartLine key={part.id} part={part} />
            ))}
          </ul>
        </chakra.nav>
      )}
      {sought.trim() && <FoundNumbers sought={sought} none={matching.length === 0} />}
    </Stack>
  )
}

function PartLine({ part }: { part: Part }) {
  return (
    <li>
      <Link to={`/settings/${part.id}`}>
        <Box py={3} borderTop="1px solid" borderColor="line" _hover={{ bg: 'faint' }}>
          <Strong fontSize="large">{part.name}</Strong>
          <Span display="block" color="soft">
            {part.about}
          </Span>
        </Box>
      </Link>
    </li>
  )
}

/** Numbers that hold what is sought, each with its value; they are set in their own part. */
function FoundNumbers({ sought, none }: { sought: string; none: boolean }) {
  const settings = useQuery(settingsQuery)
  if (!settings.data) return <Fetching problem={settings.error?.message} />
  const matching = found(settings.data, sought)
  if (matching.length === 0) {
    return none && <Text role="status">Nothing in Settings has that in its name.</Text>
  }
  return (
    <section aria-label="Numbers">
      <Text role="status" color="soft" mb={2}>
        {matching.length} of {settings.data.length} numbers
      </Text>
      <ul>
        {matching.map((setting) => (
          <NumberLine key={setting.name} setting={setting} />
        ))}
      </ul>
    </section>
  )
}

function NumberLine({ setting }: { setting: Setting }) {
  const { unit, shown } = quantityOf(setting, useTemperatureUnit())
  return (
    <li>
      <Link to={addressOf(setting.name)}>
        <Box py={2} borderTop="1px solid" borderColor="line" _hover={{ bg: 'faint' }}>
          {setting.group}: {setting.label}{' '}
          <Strong>
            {shown(setting.value)} {unit}
          </Strong>
        </Box>
      </Link>
    </li>
  )
}
