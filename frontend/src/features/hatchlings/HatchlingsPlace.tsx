import { Box, Flex, Span, Stack, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { fullDay } from '@/shared/dates'
import { type HatchlingLine, hatchlingsQuery } from '@/shared/hatchlings/queries'
import { Button } from '@/shared/ui/Button'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { Feeding } from './Feeding'
import { HatchlingList } from './HatchlingList'
import { TheyLeft } from './TheyLeft'

/** Hatchlings in the house, clutch by clutch: what each weighs, eats and needs. */
export function Component() {
  const query = useQuery(hatchlingsQuery(false))
  if (!query.data) return <Waiting problem={query.error?.message} />
  const clutches = byClutch(query.data)
  const due = query.data.filter((line) => line.due).length
  return (
    <Stack gap={10}>
      <div>
        <Title>Hatchlings</Title>
        <Text fontSize="lead" mt={2} maxWidth="34em">
          {query.data.length === 0
            ? 'None in the house. A hatchling comes here once it is recorded at its clutch in Hatch watch.'
            : `${query.data.length} in the house, ${due === 0 ? 'none needs' : `${due} ${due === 1 ? 'needs' : 'need'}`} anything now.`}
        </Text>
      </div>
      {clutches.map(([code, lines]) => (
        <OfClutch key={code} code={code} lines={lines} />
      ))}
      <Gone />
    </Stack>
  )
}

function OfClutch({ code, lines }: { code: string; lines: HatchlingLine[] }) {
  const [open, setOpen] = useState<'feeding' | 'left' | null>(null)
  const toggle = (what: 'feeding' | 'left') => () => setOpen(open === what ? null : what)
  const done = () => setOpen(null)
  return (
    <section aria-labelledby={`of-${code}`}>
      <Flex align="center" gap={4} wrap="wrap" mb={2}>
        <Heading id={`of-${code}`}>
          <Link to={`/hatch/${code}`}>
            <Span textDecoration="underline" textUnderlineOffset="3px">
              {code}
            </Span>
          </Link>{' '}
          <Span color="soft" fontSize="medium" fontWeight="medium">
            out {fullDay(lines[0]?.out_at ?? '')}
          </Span>
        </Heading>
        <Flex marginStart="auto" gap={2}>
          <Button type="button" aria-expanded={open === 'left'} onClick={toggle('left')}>
            They left
          </Button>
          <Button type="button" aria-expanded={open === 'feeding'} onClick={toggle('feeding')}>
            Feed them
          </Button>
        </Flex>
      </Flex>
      {open === 'feeding' && <Feeding code={code} lines={lines} onDone={done} />}
      {open === 'left' && <TheyLeft lines={lines} onDone={done} />}
      <HatchlingList lines={lines} />
    </section>
  )
}

/** Those that were held back, left or died; asked for only when somebody wants to see them. */
function Gone() {
  const [shown, setShown] = useState(false)
  const query = useQuery({ ...hatchlingsQuery(true), enabled: shown })
  return (
    <section aria-label="Held back or gone">
      <Button type="button" variant="bare" aria-expanded={shown} onClick={() => setShown(!shown)}>
        {shown ? 'Hide those held back or gone' : 'Show those held back or gone'}
      </Button>
      {shown && !query.data && <Waiting problem={query.error?.message} />}
      {shown && query.data?.length === 0 && <Text color="soft">None so far.</Text>}
      {shown &&
        byClutch(query.data ?? []).map(([code, lines]) => (
          <Box key={code} mt={6}>
            <Heading>{code}</Heading>
            <HatchlingList lines={lines} />
          </Box>
        ))}
    </section>
  )
}

/** Lines come clutch by clutch; this only cuts the list. */
function byClutch(lines: HatchlingLine[]): [string, HatchlingLine[]][] {
  const groups = new Map<string, HatchlingLine[]>()
  for (const line of lines) {
    const held = groups.get(line.clutch)
    if (held) held.push(line)
    else groups.set(line.clutch, [line])
  }
  return [...groups]
}
