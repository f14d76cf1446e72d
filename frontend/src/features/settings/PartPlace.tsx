import { Span, Stack, Text } from '@chakra-ui/react'
import type { ComponentType } from 'react'
import { Link, useParams } from 'react-router'
import { Phones } from '@/features/home-network/Phones'
import { Messengers } from '@/features/messengers/Messengers'
import { ProgramLog } from '@/features/program-log/ProgramLog'
import { mayRun, useSession } from '@/shared/people/session'
import { Temperatures } from '@/shared/people/Temperatures'
import { PARTS } from '@/shared/settings/parts'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { Backups } from './Backups'
import { Calendar } from './Calendar'
import { Devices } from './Devices'
import { Methods } from './Methods'
import { Numbers } from './Numbers'
import { People } from './People'
import { Scores } from './Scores'
import { SecurityLog } from './SecurityLog'
import { WholeHouse } from './WholeHouse'

type Section = { id: string; name: string; Content: ComponentType }

/** What each part holds; the only section of a part goes by the part's name. */
const SECTIONS: Record<string, Section[]> = {
  methods: [{ id: 'house-methods', name: 'House methods', Content: Methods }],
  numbers: [{ id: 'all-numbers', name: 'Numbers', Content: Numbers }],
  people: [
    { id: 'who', name: 'People', Content: People },
    { id: 'security', name: 'Sign-ins', Content: SecurityLog },
  ],
  phones: [
    { id: 'home', name: 'Phones', Content: Phones },
    { id: 'calendar', name: 'Calendar', Content: Calendar },
    { id: 'temperatures', name: 'Temperatures', Content: Temperatures },
  ],
  alarms: [{ id: 'channels', name: 'Alarm notifications', Content: Messengers }],
  devices: [{ id: 'all-devices', name: 'Devices and tokens', Content: Devices }],
  backups: [
    { id: 'copies', name: 'Backups', Content: Backups },
    { id: 'whole-house', name: 'Export and import', Content: WholeHouse },
  ],
  record: [{ id: 'scores', name: 'How good the forecasts were', Content: Scores }],
  log: [{ id: 'lines', name: 'Program log', Content: ProgramLog }],
}

/** One part of Settings. */
export function Component() {
  const { part: asked = '' } = useParams()
  const session = useSession()
  const part = PARTS.find(({ id }) => id === asked)
  const sections = SECTIONS[asked]
  if (!part || !sections) return <Waiting problem="There is no such part of Settings." />
  if (!session.data) return <Waiting problem={session.error?.message} />
  const runs = mayRun(session.data)
  if (part.runs && !runs) return <Waiting problem="Only a keeper may see this." />
  // Whoever signs in has their degrees on their own page.
  const shown = sections.filter(({ id }) => id !== 'temperatures' || !session.data.sign_in)
  return (
    <Stack gap={6} maxWidth="53.75rem">
      <div>
        <Text mb={1}>
          <Link to="/settings">
            <Span textDecoration="underline">All settings</Span>
          </Link>
        </Text>
        <Title>{part.name}</Title>
      </div>
      {!runs && <Notice>Only a keeper may change how the house is run; you may look.</Notice>}
      <Stack gap={10}>
        {shown.map(({ id, name, Content }) =>
          sections.length === 1 ? (
            <section key={id} aria-label={name}>
              <Content />
            </section>
          ) : (
            <section key={id} aria-labelledby={id}>
              <Heading id={id}>{name}</Heading>
              <Content />
            </section>
          ),
        )}
      </Stack>
    </Stack>
  )
}
