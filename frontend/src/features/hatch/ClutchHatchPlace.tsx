import { Span, Stack, Text } from '@chakra-ui/react'
import { Link, useParams } from 'react-router'
import { answer, api, isNotFound, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { day } from '@/shared/dates'
import { ImpossiblePip } from '@/shared/forecast/ImpossiblePip'
import { takeMoment } from '@/shared/moment/moment'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { Tick } from '@/shared/ui/Tick'
import { developed } from '@/shared/units'
import { Fates } from './Fates'
import { HatchClutch } from './HatchClutch'
import { Hatchlings } from './Hatchlings'
import { type HatchingClutch, useHatchingClutch, useHatchWatch } from './queries'
import { standingWords } from './words'

/** One clutch from its last week to its hatchlings' first meals, and until it is closed. */
export function Component() {
  const { code = '' } = useParams()
  const query = useHatchingClutch(code)
  // The house's own clock: a frozen demo has another than the browser.
  const asOf = useHatchWatch().data?.as_of
  const clutch = query.data
  if (!clutch || !asOf || isNotFound(query.error)) {
    return <Waiting problem={query.error?.message} />
  }
  return (
    <Stack gap={8}>
      <div>
        <Title>{clutch.code} at hatch</Title>
        <Text color="soft" mt={1}>
          <Link to={`/clutches/${clutch.code}`}>
            <Span textDecoration="underline" textUnderlineOffset="3px">
              The clutch
            </Span>
          </Link>{' '}
          of {clutch.dam}
          {clutch.sire && ` and ${clutch.sire}`}; day {clutch.day}, {developed(clutch.fraction)} by
          heat. Cutting: {clutch.school}.
        </Text>
        <Text fontSize="lead" mt={2}>
          {standingWords(clutch, asOf)}
        </Text>
      </div>
      {clutch.impossible_pip && (
        <ImpossiblePip
          code={clutch.code}
          asked={clutch.impossible_pip}
          cabinet={clutch.boxes[0]?.cabinet}
        />
      )}
      {!clutch.maternal && (
        <section aria-label="Eggs by the hour">
          <HatchClutch clutch={clutch} asOf={asOf} />
        </section>
      )}
      {clutch.maternal && (
        <p>{clutch.dam} keeps them: record who is out at the clutch once you see it.</p>
      )}
      {!clutch.finished_at && <LastWeek clutch={clutch} />}
      <section aria-labelledby="hatchlings">
        <Heading id="hatchlings">Hatchlings</Heading>
        <Hatchlings clutch={clutch} />
      </section>
      <section aria-labelledby="fates">
        <Heading id="fates">Fates</Heading>
        <Fates clutch={clutch} />
      </section>
    </Stack>
  )
}

/** What has to be ready before the first pip. */
function LastWeek({ clutch }: { clutch: HatchingClutch }) {
  const tick = useAct(
    (body: Schemas['LastWeekTickRequest']) =>
      answer(
        api.POST('/api/clutches/{code}/last-week', {
          params: { path: { code: clutch.code } },
          body,
        }),
      ),
    (act) => act,
  )
  return (
    <section aria-labelledby="last-week">
      <Heading id="last-week">Ready for them?</Heading>
      <ul>
        {clutch.preparations.map((line) => (
          <li key={line.task}>
            <Tick
              label={line.text}
              note={line.done_at ? `done ${day(line.done_at)}` : undefined}
              checked={line.done_at !== null}
              onChange={(done) => tick.mutate({ task: line.task, done, at: takeMoment() })}
            />
          </li>
        ))}
      </ul>
    </section>
  )
}
