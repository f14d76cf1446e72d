import { chakra } from '@chakra-ui/react'
import { Link } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import type { Schemas } from '@/shared/api/client'
import { useAfterLaying, useHouseLog, useLayDays, useToday, useUndo } from '@/shared/api/queries'
import { Alarms } from '@/shared/climate/Alarms'
import { useAlarms } from '@/shared/climate/useAlarms'
import { dayAndTime, fullMoment } from '@/shared/dates'
import { URGENCY_WORDS, urgencyRank } from '@/shared/rounds/urgency'
import { Button } from '@/shared/ui/Button'
import { Log } from '@/shared/ui/Log'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { temperature, useTemperatureUnit } from '@/shared/units'
import { BeforeAndAfter } from './BeforeAndAfter'
import { ClutchLine } from './ClutchLine'
import { OpenToday } from './OpenToday'

type Today = Schemas['TodayResponse']
type Clutch = Schemas['TodayClutchResponse']

/** What to do now, by cabinet and shelf, with the reason for each. */
export function Component() {
  const today = useToday()
  if (!today.data) return <Waiting problem={today.error?.message} />
  const { clutches } = today.data
  if (clutches.length === 0) return <FirstClutch />
  return (
    <chakra.div display="flex" flexDirection="column" gap={8}>
      <chakra.div display="flex" alignItems="baseline" flexWrap="wrap" columnGap={4}>
        <Title>Today</Title>
        <chakra.span color="soft">
          {fullMoment(today.data.as_of)}
          {today.data.demo ? ', made-up demo data' : ''}
        </chakra.span>
      </chakra.div>
      {today.data.clock_behind_s > 300 && (
        <Notice label="Clock">
          This machine's clock was set back by {Math.round(today.data.clock_behind_s / 60)} minutes.
          Sandboa counts on from before; set it right and start it again.
        </Notice>
      )}
      <CannotWait today={today.data} />
      <OpenToday clutches={clutches} />
      <ToKnow today={today.data} />
      <BeforeAndAfter />
      {cabinetsOf(clutches).map(({ cabinet, standing }) => (
        <Cabinet key={cabinet} cabinet={cabinet} clutches={standing} />
      ))}
      <RecordedLast />
    </chakra.div>
  )
}

/** The log of the whole house: here also what belongs to no clutch can be undone. */
function RecordedLast() {
  const log = useHouseLog()
  const undo = useUndo()
  if (!log.data?.length) return null
  return (
    <section aria-labelledby="recorded-last">
      <Heading id="recorded-last">Recorded last</Heading>
      <Log entries={log.data} onUndo={(act) => undo.mutate(act)} shownAtFirst={5} />
    </section>
  )
}

/** Alarms and what cannot wait, before the boxes to open. */
function CannotWait({ today }: { today: Today }) {
  const grave = useOpenAlarms().filter((alarm) => alarm.severity !== 'notice')
  const lines = linesOf(today).filter(({ attention }) => urgencyRank(attention.urgency) >= 2)
  const dams = useDamsInTrouble()
  if (grave.length + lines.length + dams.length === 0) return null
  return (
    <section aria-label="What needs you">
      {grave.length > 0 && (
        <chakra.div mb={3}>
          <Alarms alarms={grave} showCabinet />
        </chakra.div>
      )}
      {dams.length > 0 && (
        <chakra.ul listStyleType="none" mb={3} display="flex" flexDirection="column" gap={2}>
          {dams.map(({ key, to, label, text }) => (
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

/** What to know besides: watch, silent probes, notices. */
function ToKnow({ today }: { today: Today }) {
  const alarms = useOpenAlarms()
  const lines = linesOf(today).filter(({ attention }) => urgencyRank(attention.urgency) === 1)
  const silent = today.silent_probes.filter(
    (probe) => !alarms.some((alarm) => alarm.kind === 'unplugged' && alarm.probe === probe.name),
  )
  const notices = alarms.filter((alarm) => alarm.severity === 'notice')
  const dams = useDamsInTrouble()
  if (lines.length + silent.length + notices.length === 0) {
    const busy = alarms.length > 0 || today.clutches.some((clutch) => clutch.due.length > 0)
    if (busy) return null
    return (
      <chakra.p fontSize="1.2em">
        {dams.length > 0 ? 'No box needs opening.' : 'Nothing needs you now. Leave the doors shut.'}
      </chakra.p>
    )
  }
  return (
    <section aria-label="To know">
      <Lines lines={lines} />
      {silent.map((probe) => (
        <Notice key={probe.name} label="Silent">
          Probe {probe.name}
          {probe.last_at ? `: nothing since ${dayAndTime(probe.last_at)}.` : ': no reading yet.'}{' '}
          Its eggs are forecast from what stands in for it.
        </Notice>
      ))}
      {notices.length > 0 && (
        <chakra.div mt={2}>
          <Alarms alarms={notices} showCabinet />
        </chakra.div>
      )}
    </section>
  )
}

type Line = { clutch: Clutch; attention: Clutch['attention'][number] }

/** What needs the keeper at a clutch; reasons to open its box stand in the list of those. */
function linesOf(today: Today): Line[] {
  return today.clutches
    .flatMap((clutch) => clutch.attention.map((attention) => ({ clutch, attention })))
    .filter(({ attention }) => !attention.at_box)
    .sort((a, b) => urgencyRank(b.attention.urgency) - urgencyRank(a.attention.urgency))
}

function useOpenAlarms() {
  return useAlarms(0).data?.filter((alarm) => !alarm.ended_at) ?? []
}

function Lines({ lines }: { lines: Line[] }) {
  if (lines.length === 0) return null
  return (
    <chakra.ul listStyleType="none" display="flex" flexDirection="column" gap={2}>
      {lines.map(({ clutch, attention }) => (
        <li key={`${clutch.code}-${attention.text}`}>
          <Link to={attention.at_hatch ? `/hatch/${clutch.code}` : `/clutches/${clutch.code}`}>
            <Notice
              urgent={urgencyRank(attention.urgency) >= 2}
              label={URGENCY_WORDS[attention.urgency]}
            >
              <chakra.span fontWeight={750}>
                Box {clutch.code}, {clutch.cabinet}, {clutch.shelf}:
              </chakra.span>{' '}
              {attention.text}
            </Notice>
          </Link>
        </li>
      ))}
    </chakra.ul>
  )
}

function Cabinet({ cabinet, clutches }: { cabinet: string; clutches: Clutch[] }) {
  const unit = useTemperatureUnit()
  const first = clutches[0]
  return (
    <section aria-labelledby={`cabinet-${cabinet}`}>
      <chakra.div display="flex" alignItems="baseline" gap={3}>
        <Heading id={`cabinet-${cabinet}`}>
          <Link to={`/cabinets/${encodeURIComponent(cabinet)}`}>
            <chakra.span textDecoration="underline" textUnderlineOffset="4px">
              {cabinet}
            </chakra.span>
          </Link>
        </Heading>
        {first && (
          <chakra.span color="soft">set to {temperature(first.set_point_c, unit)}</chakra.span>
        )}
      </chakra.div>
      {shelvesOf(clutches).map(({ shelf, standing }) => (
        <chakra.div key={shelf} borderBottom="5px solid" borderColor="line" mb={3}>
          {standing.map((clutch) => (
            <ClutchLine key={clutch.code} clutch={clutch} />
          ))}
        </chakra.div>
      ))}
    </section>
  )
}

function FirstClutch() {
  return (
    <chakra.div py={8} maxWidth="44rem">
      <EggDrawing egg={{ number: 1, grade: 0, topMark: 'top' }} size={150} decorative />
      <chakra.div mt={6} mb={3}>
        <Title>No clutch in a box</Title>
      </chakra.div>
      <chakra.p mb={6} fontSize="1.1em">
        Record one on lay day: dam, eggs, box and cabinet. Pip dates follow from the set point, and
        grow sharper with every reading.
      </chakra.p>
      <Button asChild variant="act">
        <Link to="/lay-day">Record a clutch</Link>
      </Button>
      <chakra.div mt={12} display="flex" flexDirection="column" gap={8}>
        <BeforeAndAfter />
        <RecordedLast />
      </chakra.div>
    </chakra.div>
  )
}

/** Clutches come ordered by cabinet and shelf; these only cut the list. */
function cabinetsOf(clutches: Clutch[]) {
  return cut(clutches, (c) => c.cabinet).map(([cabinet, standing]) => ({ cabinet, standing }))
}

function shelvesOf(clutches: Clutch[]) {
  return cut(clutches, (c) => c.shelf).map(([shelf, standing]) => ({ shelf, standing }))
}

function cut(clutches: Clutch[], by: (clutch: Clutch) => string): [string, Clutch[]][] {
  const groups = new Map<string, Clutch[]>()
  for (const clutch of clutches) groups.set(by(clutch), [...(groups.get(by(clutch)) ?? []), clutch])
  return [...groups]
}
