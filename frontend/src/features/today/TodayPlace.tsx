import { Box, chakra, Flex, Span, Stack, Text } from '@chakra-ui/react'
import { lazy, Suspense } from 'react'
import { Link } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import type { Schemas } from '@/shared/api/client'
import { useAfterLaying, useLayDays, useToday } from '@/shared/api/queries'
import { Alarms } from '@/shared/climate/Alarms'
import { useAlarms } from '@/shared/climate/useAlarms'
import { dayAndTime, fullMoment } from '@/shared/dates'
import { WindowedList } from '@/shared/many/WindowedList'
import { WALL } from '@/shared/places'
import { isPressing, URGENCY_WORDS, urgencyRank } from '@/shared/rounds/urgency'
import { Button } from '@/shared/ui/Button'
import { Few } from '@/shared/ui/Few'
import { firstOf } from '@/shared/ui/firstOf'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { temperature, useTemperatureUnit } from '@/shared/units'
import { BoxLine, codeOf } from './BoxLine'
import { HatchlingsDue } from './HatchlingsDue'
import { OpenToday } from './OpenToday'

// Fetched when something hinders readings: most days nothing does.
const Senders = lazy(() => import('@/shared/senders/Senders'))
const FirstScreen = lazy(() =>
  import('./FirstScreen').then(({ FirstScreen }) => ({ default: FirstScreen })),
)
// What is not in a box comes after what is, and what was done after what is to do.
const BeforeAndAfter = lazy(() =>
  import('./BeforeAndAfter').then(({ BeforeAndAfter }) => ({ default: BeforeAndAfter })),
)
const RecordedLast = lazy(() =>
  import('./RecordedLast').then(({ RecordedLast }) => ({ default: RecordedLast })),
)

type Today = Schemas['TodayResponse']
type TodayBox = Schemas['TodayBoxResponse']

/** What to do now, by cabinet and shelf, with the reason for each. */
export function Component() {
  const today = useToday()
  if (!today.data) return <Waiting problem={today.error?.message} />
  const { boxes } = today.data
  if (boxes.length === 0) return <FirstClutch today={today.data} />
  return (
    <Stack gap={8}>
      <Flex align="baseline" wrap="wrap" columnGap={4}>
        <Title>Today</Title>
        <Span color="soft">
          {fullMoment(today.data.as_of)}
          {today.data.demo ? ', made-up demo data' : ''}
        </Span>
        <Span hideBelow="md" marginStart="auto">
          <Link to={WALL}>
            <Span color="soft" textDecoration="underline">
              Wall view
            </Span>
          </Link>
        </Span>
      </Flex>
      {today.data.clock_behind_s > 300 && (
        <Notice label="Clock">
          This machine's clock was set back by {Math.round(today.data.clock_behind_s / 60)} minutes.
          Sandboa counts on from before; set it right and start it again.
        </Notice>
      )}
      <CannotWait today={today.data} />
      <OpenToday boxes={boxes} />
      <ToKnow today={today.data} />
      <HatchlingsDue />
      <Suspense>
        <BeforeAndAfter />
      </Suspense>
      {cabinetsOf(boxes).map(({ cabinet, standing }) => (
        <Cabinet key={cabinet} cabinet={cabinet} boxes={standing} />
      ))}
      <Suspense>
        <RecordedLast />
      </Suspense>
    </Stack>
  )
}

/** Dams shown here; more are among the animals. */
const DAMS = 4

/** Alarms and what cannot wait, before the boxes to open. */
function CannotWait({ today }: { today: Today }) {
  const grave = useOpenAlarms().filter((alarm) => alarm.severity !== 'notice')
  const lines = linesOf(today).filter(({ attention }) => isPressing(attention.urgency))
  const dams = useDamsInTrouble()
  const shown = firstOf(dams, DAMS)
  if (grave.length + lines.length + dams.length === 0) return null
  return (
    <section aria-label="What needs you">
      {grave.length > 0 && (
        <Box mb={3}>
          <Alarms alarms={grave} showCabinet />
        </Box>
      )}
      {dams.length > 0 && (
        <chakra.ul mb={3} display="flex" flexDirection="column" gap={2}>
          {shown.map(({ key, to, label, text }) => (
            <li key={key}>
              <Link to={to}>
                <Notice urgent label={label}>
                  {text}
                </Notice>
              </Link>
            </li>
          ))}
        </chakra.ul>
      )}
      {shown.length < dams.length && (
        <Button asChild size="small" mb={3}>
          <Link to="/animals?now=look">All {dams.length} dams that need somebody</Link>
        </Button>
      )}
      <Lines lines={lines} />
    </section>
  )
}

/** Dams that need somebody: an egg that may be left in one, no meals, weight that falls. */
function useDamsInTrouble() {
  const after = useAfterLaying()
  const open = useLayDays()
  return [
    ...(open.data ?? [])
      .filter(({ state }) => state.lump === 'left')
      .map(({ id, state }) => ({
        key: `lay ${id}`,
        to: `/lay-day/${id}`,
        label: state.dam,
        text: 'A lump was left in her: look at her again; if it stays, a reptile vet.',
      })),
    ...(after.data ?? []).flatMap((dam) =>
      dam.flags.map((flag) => ({
        key: `${dam.dam} ${flag}`,
        to: `/animals/${dam.dam}`,
        label: 'Look at her:',
        text: flag,
      })),
    ),
  ]
}

/** What to know besides: watch, silent probes, what hinders readings, notices. */
function ToKnow({ today }: { today: Today }) {
  const alarms = useOpenAlarms()
  const lines = linesOf(today).filter(({ attention }) => urgencyRank(attention.urgency) === 1)
  const silent = today.silent_probes.filter(
    (probe) => !alarms.some((alarm) => alarm.kind === 'unplugged' && alarm.probe === probe.name),
  )
  const notices = alarms.filter((alarm) => alarm.severity === 'notice')
  const dams = useDamsInTrouble()
  const hindered = isHindered(today)
  if (!hindered && lines.length + silent.length + notices.length === 0) {
    const busy = alarms.length > 0 || today.boxes.some((box) => box.due.length > 0)
    if (busy) return null
    return (
      <Text fontSize="large">
        {dams.length > 0 ? 'No box needs opening.' : 'Nothing needs you now. Leave the doors shut.'}
      </Text>
    )
  }
  return (
    <section aria-label="To know">
      <Lines lines={lines} />
      {silent.map((probe) => (
        <Notice key={probe.name} label={probe.from_files ? 'File due' : 'Silent'}>
          Probe {probe.name}
          {probe.last_at ? `: nothing since ${dayAndTime(probe.last_at)}.` : ': no reading yet.'}{' '}
          {probe.from_files
            ? 'Read its file in: until then its eggs are forecast from what stands in for it.'
            : 'Its eggs are forecast from what stands in for it.'}
        </Notice>
      ))}
      {hindered && <Hindered today={today} />}
      {notices.length > 0 && (
        <Box mt={2}>
          <Alarms alarms={notices} showCabinet />
        </Box>
      )}
    </section>
  )
}

const isHindered = (today: Today) =>
  today.broker_problem !== null || today.refused_senders.length + today.weak_senders.length > 0

function Hindered({ today }: { today: Today }) {
  return (
    <Suspense>
      <Senders today={today} />
    </Suspense>
  )
}

type Line = { box: TodayBox; attention: TodayBox['attention'][number] }

/** What needs the keeper at a clutch; reasons to open its box stand in the list of those. */
function linesOf(today: Today): Line[] {
  return today.boxes
    .flatMap((box) => box.attention.map((attention) => ({ box, attention })))
    .filter(({ attention }) => !attention.at_box)
    .sort((a, b) => urgencyRank(b.attention.urgency) - urgencyRank(a.attention.urgency))
}

function useOpenAlarms() {
  return useAlarms(0).data?.filter((alarm) => !alarm.ended_at) ?? []
}

function Lines({ lines }: { lines: Line[] }) {
  if (lines.length === 0) return null
  return (
    <Few
      most={8}
      what="of them"
      list={(shown) => (
        <chakra.ul display="flex" flexDirection="column" gap={2}>
          {shown}
        </chakra.ul>
      )}
    >
      {lines.map(({ box, attention }) => (
        <li key={`${box.name}-${attention.text}`}>
          <Link to={attention.at_hatch ? `/hatch/${codeOf(box)}` : `/clutches/${codeOf(box)}`}>
            <Notice urgent={isPressing(attention.urgency)} label={URGENCY_WORDS[attention.urgency]}>
              <Span fontWeight="bold">
                Box {box.name}, {box.cabinet}, {box.shelf}:
              </Span>{' '}
              {attention.text}
            </Notice>
          </Link>
        </li>
      ))}
    </Few>
  )
}

/** How high a box's line is by itself, px, and the board under a shelf. */
const BOX_PX = 105
const BOARD = { borderBottom: '5px solid', borderColor: 'line', mb: 3 }

function Cabinet({ cabinet, boxes }: { cabinet: string; boxes: TodayBox[] }) {
  const unit = useTemperatureUnit()
  const setTo = boxes[0]?.set_point_c ?? null
  return (
    <section aria-labelledby={`cabinet-${cabinet}`}>
      <Flex align="baseline" gap={3}>
        <Heading id={`cabinet-${cabinet}`}>
          <Link to={`/cabinets/${encodeURIComponent(cabinet)}`}>
            <Span textDecoration="underline" textUnderlineOffset="4px">
              {cabinet}
            </Span>
          </Link>
        </Heading>
        {setTo !== null && <Span color="soft">set to {temperature(setTo, unit)}</Span>}
      </Flex>
      <WindowedList
        items={boxes}
        keyOf={({ name }) => name}
        height={BOX_PX}
        row={(box, index) => (
          // A board under the last box of each shelf.
          <Box {...(box.shelf === boxes[index + 1]?.shelf ? {} : BOARD)}>
            <BoxLine box={box} />
          </Box>
        )}
      />
    </section>
  )
}

/** No egg in a box: an empty house asks where to begin; what was begun or recorded stands below. */
function FirstClutch({ today }: { today: Today }) {
  return (
    <Box py={{ base: 0, md: 4 }}>
      {today.empty ? (
        <Suspense fallback={<Waiting />}>
          <FirstScreen now={today.as_of} />
        </Suspense>
      ) : (
        <NoClutch />
      )}
      <Stack mt={12} gap={8} maxWidth="44rem">
        {isHindered(today) && <Hindered today={today} />}
        <HatchlingsDue />
        <Suspense>
          <BeforeAndAfter />
          <RecordedLast />
        </Suspense>
      </Stack>
    </Box>
  )
}

function NoClutch() {
  return (
    <Box maxWidth="44rem">
      <EggDrawing egg={{ number: 1, grade: 0, topMark: 'top' }} size={150} decorative />
      <Box mt={6} mb={3}>
        <Title>No clutch in a box</Title>
      </Box>
      <Text mb={6} fontSize="lead">
        Record one on lay day: dam, eggs, box and cabinet. Pip dates follow from the set point, and
        grow sharper with every reading.
      </Text>
      <Button asChild variant="act">
        <Link to="/lay-day">Record a clutch</Link>
      </Button>
    </Box>
  )
}

/** Boxes come ordered by cabinet and shelf; this only cuts the list. */
function cabinetsOf(boxes: TodayBox[]) {
  const groups = new Map<string, TodayBox[]>()
  for (const box of boxes) {
    groups.set(box.cabinet, [...(groups.get(box.cabinet) ?? []), box])
  }
  return [...groups].map(([cabinet, standing]) => ({ cabinet, standing }))
}
