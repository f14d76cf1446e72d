import { Box, chakra, Field, Input, Span, Text } from '@chakra-ui/react'
import { type ReactNode, useEffect, useState } from 'react'
import { useLocation } from 'react-router'
import { found, type Setting } from './numbers'
import { SettingLine } from './SettingLine'

/** The part of the address that names a number or a group of them. */
function useHash(): string {
  return decodeURIComponent(useLocation().hash.slice(1))
}

/** The house's numbers by what they judge; a group opens when the address names one of it.
 *  Weights, of which there are many, lie one level deeper; all are found by their words. */
export function Numbers({ settings }: { settings: Setting[] }) {
  const hash = useHash()
  const [sought, setSought] = useState('')
  useEffect(() => {
    if (hash) document.getElementById(hash)?.scrollIntoView()
  }, [hash])
  const matching = found(settings, sought)
  const deep = settings.filter((setting) => setting.deep)
  return (
    <>
      <Field.Root mb={4} maxWidth="28rem">
        <Field.Label>Find a number</Field.Label>
        <Input
          type="search"
          value={sought}
          placeholder="swing, oxygen, mould, dry"
          onChange={(event) => setSought(event.target.value)}
        />
      </Field.Root>
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
          <Groups settings={settings.filter((setting) => !setting.deep)} hash={hash} />
          <Fold
            name="Weights, one by one"
            own={deep}
            open={deep.some((s) => s.name === hash || s.group === hash)}
          >
            <Box ps={{ base: 2, md: 5 }}>
              <Groups settings={deep} hash={hash} />
            </Box>
          </Fold>
        </>
      )}
    </>
  )
}

function Groups({ settings, hash }: { settings: Setting[]; hash: string }) {
  const groups = [...new Set(settings.map((setting) => setting.group))]
  return groups.map((group) => {
    const own = settings.filter((setting) => setting.group === group)
    const named = hash === group || own.some((setting) => setting.name === hash)
    return (
      <Fold key={group} name={group} own={own} open={named || group === 'House'}>
        {own.map((setting) => (
          <SettingLine key={`${setting.name}-${setting.value}`} setting={setting} />
        ))}
      </Fold>
    )
  })
}

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
  return (
    <chakra.details
      id={name}
      open={open || undefined}
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
      {children}
    </chakra.details>
  )
}

function changedWords(own: Setting[]): string {
  const changed = own.filter((setting) => setting.value !== setting.default).length
  return changed ? `${own.length} numbers, ${changed} your own` : `${own.length} numbers`
}
