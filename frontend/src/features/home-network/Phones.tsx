import { Code, chakra, Flex, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { under } from '@/shared/api/under'
import { fullDay } from '@/shared/dates'
import { homeNetworkQuery } from './queries'

/** How a phone comes into the house: the code it scans, and every name the house answers to. */
export function Phones() {
  const { data: home } = useQuery(homeNetworkQuery)
  if (!home) return null
  if (!home.address) return <NotYet />
  return (
    <Flex gap={6} wrap="wrap" align="start">
      <chakra.img
        src={under('/api/home-network/qr.svg')}
        alt={`Opens ${home.door ?? home.address}`}
        width="10rem"
        bg="white"
        borderRadius="md"
      />
      <Stack gap={3} flex="1 1 18rem">
        <Text>
          {home.door
            ? 'A new phone in your network scans this. The page it opens hands out the house’s certificate, says how the phone comes to trust it, and leads on.'
            : 'A new phone in your network scans this.'}
        </Text>
        {home.door && <Told label="Or opens">{home.door}</Told>}
        <Told label="On cards and codes">{home.address}</Told>
        <Told label="Answers to">{home.names.join(', ')}, and its bare address</Told>
        {home.certificate && (
          <>
            <Told label="Certificate begins with">
              <Strong>{home.certificate.begins_with}</Strong>
            </Told>
            <Text color="soft">
              The phone’s page must show the same. Phones trust it until{' '}
              {fullDay(home.certificate.ends_at)}; what the house answers with is renewed by itself.
            </Text>
          </>
        )}
        {home.door && !home.name_is_known && (
          <Text color="soft">
            The house’s name could not be made known in this network: phones use its address.
          </Text>
        )}
        {!home.door && home.address.startsWith('http:') && (
          <Text color="soft">
            Passphrases travel unencrypted. Started with <Code>--home</Code> the house has a
            certificate of its own, and phones keep it for when there is no network.
          </Text>
        )}
      </Stack>
    </Flex>
  )
}

function NotYet() {
  return (
    <Stack gap={3}>
      <Text>
        The house answers this machine alone. To have it on phones and tablets in your network, stop
        it and start it with
      </Text>
      <Code alignSelf="start" px={3} py={2}>
        sandboa serve --home
      </Code>
      <Text color="soft">
        It asks for a keeper’s passphrase first, and shows a code for phones to scan.
      </Text>
    </Stack>
  )
}

function Told(props: { label: string; children: ReactNode }) {
  return (
    <Text overflowWrap="anywhere">
      <Span color="soft">{props.label}: </Span>
      {props.children}
    </Text>
  )
}
