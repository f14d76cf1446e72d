import { Box, chakra, Span, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { type ReactNode, useEffect, useState } from 'react'
import { useLocation } from 'react-router'
import { Fetching } from '@/shared/ui/page'
import { found, type Setting } from './numbers'
import { settingsQuery } from './queries'
import { SearchField } from './SearchField'
import { SettingLine } from './SettingLine'

/** The part of the address that names a number or a group of them. */
function useHash(): string {
  return decodeURIComponent(useLocation().hash.slice(1))
}

/** The house's numbers by what they judge; a group opens when the address names one of it.
 *  Weights, of which there are many, lie one level deeper; all are found by their words. */
export function Numbers() {
  const settings = useQuery(settingsQuery)
  if (!settings.data) return <Fetching problem={settings.error?.message} />
  return (
    <div>
      <Text color="soft" mb={3}>
        What the house judges by. A number you set replaces the default everywhere at once.
      </Text>
      <Groups settings={settings.data} />
    </div>
  )
}

function Groups({ settings }: { settings: Setting[] }) {
  const hash = useHash()
  const [sought, setSought] = useState('')
  useEffect(() => {
    if (hash) document.getElementById(hash)?.scrollIntoView()
  }, [hash])
  const matching = found(settings, sought)
  const deep = settings.filter((setting) => setting.deep)
  return (
    <>
      <Box mb={4}>
        <SearchField
          label="Find a number"
          examples="swing, oxygen, mould, dry"
          sought={sought}
          onSought={setSought}
        />
      </Box>
      {sought.trim() ? (
        <>
          <Text role="status" color="soft" mb={2}>
            {matching.length === 0
              ? 'No number has that in its name or its reason.'
              : `${matching.length} of ${settings.length} numbers`}
          </Text>
          {matching.map((setting) => (
            <SettingLine key={`${setting.name}-${setting.value}`} setting={setting} grouped />
          ))}
        </>
      ) : (
        <>
          <Folds settings={settings.filter((setting) => !setting.deep)} hash={hash} />
          <Fold
            name="Weights, one by one"
            own={deep}
            open={deep.some((s) => s.name === hash || s.group === hash)}
          >
            <Box ps={{ base: 2, md: 5 }}>
              <Folds settings={deep} hash={hash} />
            </Box>
          </Fold>
        </>
      )}
    </>
  )
}

function Folds({ settings, hash }: { settings: Setting[]; hash: string }) {
  const groups = [...new Set(settings.map((setting) => setting.group))]
  return groups.map((group) => {
    const own = settings.filter((setting) => setting.group === group)
    const named = hash === group || own.some((setting) => setting.name === hash)
    return (
      <Fold key={group} name={group} own={own} open={named || (hash === '' && group === 'House')}>
        {own.map((setting) => (
          <SettingLine key={`${setting.name}-${setting.value}`} setting={setting} />
        ))}
      </Fold>
    )
  })
}

/** A group of numbers; what is in it is made when it is opened, for each number is a form. */
function Fold({
  name,
  own,
  open,
  children,
}: {
  name: string
  own: Setting[]
  open: boolean
  children: ReactNode
}) {
  const [opened, setOpened] = useState(open)
  useEffect(() => setOpened((before) => before || open), [open])
  return (
    <chakra.details
      id={name}
      open={opened || undefined}
      onToggle={(event) => {
        // One within another tells of itself through both.
        if (event.target === event.currentTarget) setOpened(event.currentTarget.open)
      }}
      scrollMarginTop="5rem"
      borderTop="1.5px solid"
      borderColor="line"
    >
      <chakra.summary minHeight="3.25rem" py={3} fontWeight="bold" fontSize="lead" cursor="pointer">
        {name}
        <Span color="soft" fontWeight="medium" fontSize="fine">
          {' '}
          {changedWords(own)}
        </Span>
      </chakra.summary>
      {opened && children}
    </chakra.details>
  )
}

function changedWords(own: Setting[]): string {
  const changed = own.filter((setting) => setting.value !== setting.default).length
  return changed ? `${own.length} numbers, ${changed} your own` : `${own.length} numbers`
}
