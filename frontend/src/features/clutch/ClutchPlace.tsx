import { Box, chakra, Flex, Grid, Span, Stack, Text } from '@chakra-ui/react'
import { Link, useParams } from 'react-router'
import { isNotFound, type Schemas } from '@/shared/api/client'
import { useClutch, useUndo } from '@/shared/api/queries'
import { fullMoment } from '@/shared/dates'
import { DevelopmentRibbon } from '@/shared/forecast/DevelopmentRibbon'
import { ForecastWindows } from '@/shared/forecast/ForecastWindows'
import { ImpossiblePip } from '@/shared/forecast/ImpossiblePip'
import { useKeys } from '@/shared/keys/useKeys'
import { lastUndoable, visitsOf } from '@/shared/log/entries'
import { LogOf } from '@/shared/log/LogOf'
import { LogToggle } from '@/shared/log/LogToggle'
import { When } from '@/shared/moment/When'
import { Notes } from '@/shared/notes/Notes'
import { ClutchPhotos } from '@/shared/photos/ClutchPhotos'
import { DueLines } from '@/shared/rounds/DueLines'
import { isPressing, URGENCY_WORDS, urgencyRank } from '@/shared/rounds/urgency'
import { WhyEggs } from '@/shared/rounds/WhyEggs'
import { Button } from '@/shared/ui/Button'
import { type Part, PartsBar } from '@/shared/ui/PartsBar'
import { Heading, Notice, Title, Waiting } from '@/shared/ui/page'
import { useStayPut } from '@/shared/ui/useStayPut'
import { percent } from '@/shared/units'
import { BoxFacts } from './BoxFacts'
import { BoxWater } from './BoxWater'
import { ClutchMethod } from './ClutchMethod'
import { CorrectBox } from './CorrectBox'
import { EggGrades } from './EggGrades'
import { Pips } from './Pips'
import { RestsOn } from './RestsOn'
import { StoryLinks } from './StoryLinks'
import { WaterForm } from './WaterForm'

/** One clutch: how far it is, how its eggs look, what to do, and everything done. */
export function Component() {
  const { code = '' } = useParams()
  const query = useClutch(code)
  const undo = useUndo()
  const clutch = query.data
  const last = clutch && lastUndoable(clutch.log)
  useKeys('place', 'This clutch', [
    ...(last
      ? [{ keys: ['u'], what: `undo: ${last.summary}`, act: () => undo.mutate(last.act) }]
      : []),
    { keys: ['ArrowLeft', 'ArrowRight'], shown: 'arrow keys', what: 'choose an egg of the box' },
  ])
  // An undone clutch is gone, whatever was read of it before.
  if (!clutch || isNotFound(query.error)) return <Waiting problem={query.error?.message} />
  // Said above them, with what mends it.
  const attention = clutch.attention.filter(({ text }) => text !== clutch.impossible_pip?.question)
  return (
    <Stack gap={8}>
      <Flex wrap="wrap" align="flex-end" columnGap={6} rowGap={3}>
        <div>
          <Title>{clutch.code}</Title>
          <Text color="soft" mt={1}>
            <Parent id={clutch.dam_id} name={clutch.dam} />
            <SireOf clutch={clutch} />, {clutch.count}, laid {fullMoment(clutch.laid_at)}
          </Text>
          {clutch.expected && (
            <Text fontSize="lead" mt={1}>
              {clutch.expected.words}
            </Text>
          )}
        </div>
        <Flex marginStart={{ md: 'auto' }} wrap="wrap" gap={2}>
          {!clutch.maternal &&
            !clutch.finished_at &&
            clutch.boxes.map(({ name, due }, at) => (
              <Button key={name} asChild {...((due.length > 0 || at === 0) && { variant: 'act' })}>
                <Link to={`/round/${encodeURIComponent(name)}`}>
                  {clutch.boxes.length > 1 ? `Open box ${name}` : 'Open the box'}
                </Link>
              </Button>
            ))}
          <Button asChild>
            <Link to={`/readings?clutch=${clutch.code}`}>Add readings</Link>
          </Button>
          <Button asChild>
            <Link to={`/clutches/${clutch.code}/card`}>Card</Link>
          </Button>
          <Button asChild>
            <Link to={`/clutches/${clutch.code}/correct`}>Edit</Link>
          </Button>
        </Flex>
      </Flex>

      <PartsBar of={clutch.code} parts={partsOf(clutch)}>
        <NeedsDoing clutch={clutch} />
      </PartsBar>

      {clutch.impossible_pip && (
        <ImpossiblePip
          code={clutch.code}
          asked={clutch.impossible_pip}
          cabinet={clutch.boxes[0]?.cabinet}
        />
      )}

      {attention.length > 0 && (
        <chakra.ul display="flex" flexDirection="column" gap={2} fontSize="lead">
          {attention.map((line) => (
            <li key={line.text}>
              <Notice urgent={isPressing(line.urgency)} label={URGENCY_WORDS[line.urgency]}>
                {line.text}
                <WhyEggs code={clutch.code} eggs={line.eggs} />
              </Notice>
            </li>
          ))}
        </chakra.ul>
      )}

      <div>
        {clutch.boxes.map((box) => (
          <DueLines
            key={box.name}
            box={box.name}
            code={clutch.code}
            due={box.due.filter((due) => !clutch.attention.some((line) => line.text === due.text))}
            postponed={box.postponed}
            named={clutch.boxes.length > 1}
          />
        ))}
      </div>

      {clutch.forecast && (
        <DevelopmentRibbon
          forecast={clutch.forecast}
          pieces={clutch.ribbon}
          laidAt={clutch.laid_at}
          visits={visitsOf(clutch.log)}
        />
      )}

      <Eggs clutch={clutch} />

      {hasPips(clutch) && (
        <chakra.section aria-labelledby="pips">
          <Heading id="pips">Pips</Heading>
          <Pips clutch={clutch} />
        </chakra.section>
      )}

      <Grid templateColumns={{ base: '1fr', lg: '3fr 2fr' }} gap={10}>
        <chakra.section aria-labelledby="forecast" minWidth={0}>
          <Heading id="forecast">Forecast</Heading>
          {clutch.forecast?.typical_pip ? (
            <ForecastWindows forecast={clutch.forecast} />
          ) : (
            <Text>There is nothing to forecast here.</Text>
          )}
          <RestsOn clutch={clutch} />
        </chakra.section>
        <Stack gap={10} minWidth={0}>
          {clutch.boxes.map((box, at) => (
            <chakra.section key={box.name} aria-labelledby={`box-${at}`}>
              <Heading id={`box-${at}`}>{nameOfBox(clutch, box)}</Heading>
              <BoxFacts clutch={clutch} box={box} />
              {!clutch.maternal && <CorrectBox box={box} />}
              {box.box_water && (
                <Box mt={5}>
                  <BoxWater box={box.name} water={box.box_water} />
                </Box>
              )}
              {!clutch.maternal && <WaterForm box={box.name} />}
              <Box mt={4}>
                <Notes about={box.id} quiet />
              </Box>
              <LogToggle about={box.id} of={`box ${box.name}`} />
            </chakra.section>
          ))}
        </Stack>
      </Grid>

      <chakra.section aria-labelledby="method">
        <Heading id="method">Method</Heading>
        <ClutchMethod clutch={clutch} />
      </chakra.section>

      <chakra.section aria-labelledby="notes">
        <Heading id="notes">Notes</Heading>
        <Notes about={clutch.id} />
      </chakra.section>

      <chakra.section aria-labelledby="photos">
        <Heading id="photos">Photos</Heading>
        <ClutchPhotos clutch={clutch} />
      </chakra.section>

      <chakra.section aria-labelledby="log">
        <Heading id="log">Log</Heading>
        <LogOf about={clutch.id} shownAtFirst={8} />
        <StoryLinks code={clutch.code} />
      </chakra.section>
    </Stack>
  )
}

/** Whether the page has a part on pips: near the end, and after it. */
const hasPips = (clutch: Schemas['ClutchResponse']) =>
  clutch.finished_at !== null || (clutch.forecast?.fraction ?? 0) >= 0.85

function partsOf(clutch: Schemas['ClutchResponse']): Part[] {
  return [
    { id: 'eggs', name: 'Eggs' },
    ...(hasPips(clutch) ? [{ id: 'pips', name: 'Pips' }] : []),
    { id: 'forecast', name: 'Forecast' },
    ...clutch.boxes.map((box, at) => ({ id: `box-${at}`, name: nameOfBox(clutch, box) })),
    { id: 'method', name: 'Method' },
    { id: 'notes', name: 'Notes' },
    { id: 'photos', name: 'Photos' },
    { id: 'log', name: 'Log' },
  ]
}

/** The most pressing of what is to be done at a clutch, and how much more there is. */
function NeedsDoing({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const lines = [...clutch.attention, ...clutch.boxes.flatMap(({ due }) => due)]
  const texts = new Map(lines.map((line) => [line.text, line]))
  const [first, ...others] = [...texts.values()].sort(
    (a, b) => urgencyRank(b.urgency) - urgencyRank(a.urgency),
  )
  if (!first) return <Span color="soft">{clutch.code}: nothing to do now</Span>
  const pressing = isPressing(first.urgency)
  return (
    <>
      <Span fontWeight="bold">{clutch.code} </Span>
      {others.length > 0 && <Span color="soft">1 of {others.length + 1} </Span>}
      <Span color={pressing ? 'vessel' : 'ink'} fontWeight={pressing ? 'bold' : 'medium'}>
        {first.text}
      </Span>
    </>
  )
}

/** The sire, or those it may be, each with what hatched makes of him. */
function SireOf({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  if (clutch.sire && clutch.sire_id) {
    return (
      <>
        {' × '}
        <Parent id={clutch.sire_id} name={clutch.sire} />
      </>
    )
  }
  if (clutch.possible_sires.length === 0) return null
  const told = clutch.possible_sires.some(({ chance }) => chance !== null)
  return (
    <>
      {' × one of '}
      {clutch.possible_sires.map(({ id, name, chance }, at) => (
        <span key={id}>
          {at > 0 && ', '}
          <Parent id={id} name={name} />
          {chance !== null && ` (${percent(chance)})`}
        </span>
      ))}
      {!told && ' (by what hatched, none of them)'}
    </>
  )
}

/** LocationHistory where it is on the screen while an advice that follows from it appears above. */
function Eggs({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const part = useStayPut<HTMLElement>()
  return (
    <chakra.section ref={part} aria-labelledby="eggs">
      <Heading id="eggs">Eggs</Heading>
      {clutch.maternal ? (
        <Text>
          {clutch.dam} keeps them in {clutch.boxes[0]?.cabinet}: they are not touched, turned or
          graded. Record temperature and humidity of her tub; the windows are twice as wide.
        </Text>
      ) : (
        <Stack gap={8}>
          <When />
          {clutch.boxes.map((box) => (
            <div key={box.name}>
              {clutch.boxes.length > 1 && (
                <Text fontWeight="bold" mb={2}>
                  Box {box.name}
                </Text>
              )}
              <EggGrades clutch={clutch} box={box} />
            </div>
          ))}
        </Stack>
      )}
    </chakra.section>
  )
}

/** "Box", and its name where it is not the only one, or has another than the clutch. */
function nameOfBox(clutch: Schemas['ClutchResponse'], box: Schemas['BoxResponse']): string {
  return clutch.boxes.length === 1 && box.name === clutch.code ? 'Box' : `Box ${box.name}`
}

function Parent({ id, name }: { id: number; name: string }) {
  return (
    <Link to={`/animals/${id}`}>
      <Span textDecoration="underline" textUnderlineOffset="3px">
        {name}
      </Span>
    </Link>
  )
}
