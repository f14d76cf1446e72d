import { Box, chakra, Flex, Grid, Span, Text } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { BoxDrawing } from '@/eggs/BoxDrawing'
import { ChoosableBox } from '@/eggs/ChoosableBox'
import { asLook } from '@/shared/api/eggLook'
import { day } from '@/shared/dates'
import { useKeys } from '@/shared/keys/useKeys'
import { store } from '@/shared/offline/store'
import { useWaiting } from '@/shared/offline/useDelivery'
import { DueLines } from '@/shared/rounds/DueLines'
import { TIGHT } from '@/shared/theme/tight'
import { ActBar } from '@/shared/ui/ActBar'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { Waiting } from '@/shared/ui/page'
import { BoxPanel } from './BoxPanel'
import { DoorClock } from './DoorClock'
import {
  type Draft,
  eggOf,
  exceptions,
  openBox,
  seenNow,
  visitOf,
  withEgg,
  wrongWith,
} from './draft'
import { EggPanel } from './EggPanel'
import { nextValue } from './keys'
import {
  keepOpen,
  nextDue,
  openDraft,
  type Round,
  type RoundBox,
  stagesOf,
  useLimits,
  useRound,
} from './queries'
import { SIGN_GROUPS } from './signs'

/** One box, open: last time beside now, exceptions only, and shut again. */
export function Component() {
  const { box: name = '' } = useParams()
  const round = useRound()
  const box = round.data?.boxes.find((b) => b.name.toLowerCase() === name.toLowerCase())
  if (!round.data) return <Waiting problem={round.error?.message} />
  if (!box) return <Waiting problem={`There is no box ${name} with eggs in it.`} />
  return <OpenBox key={box.name} box={box} round={round.data} />
}

function OpenBox({ box, round }: { box: RoundBox; round: Round }) {
  const [draft, setDraft] = useState<Draft | null>(null)
  const [chosen, setChosen] = useState<string | null>(null)
  const navigate = useNavigate()
  const { boxes: closed } = useWaiting()
  const { name } = box
  // The house reading on must not open this box anew.
  const asOpened = useRef(box)

  useEffect(() => {
    // What was tapped before the phone locked, or a door just opened.
    let here = true
    openDraft(name).then((held) => {
      if (here) setDraft(held ?? openBox(asOpened.current, new Date()))
    })
    return () => {
      here = false
    }
  }, [name])
  const change = (next: Draft) => {
    setDraft(next)
    void keepOpen(next)
  }
  const limits = useLimits(box)
  const wrong = draft && wrongWith(draft, limits)
  const next = nextDue(round.boxes, closed, name)
  const shut = async () => {
    if (!draft || wrong) return
    await store.transaction('rw', store.visits, store.openBoxes, async () => {
      await store.visits.add({ visit: visitOf(draft, new Date()) })
      await store.openBoxes.delete(name)
    })
    navigate(next ? `/round/${encodeURIComponent(next.name)}` : '/round')
  }
  const leave = async () => {
    await store.openBoxes.delete(name)
    navigate('/round')
  }

  useSignKeys(box, draft, chosen, change)
  useKeys('place', 'This box', [
    { keys: ['k'], what: 'the rest as before, and shut', act: () => void shut() },
    { keys: ['ArrowLeft', 'ArrowRight'], shown: 'arrow keys', what: 'choose an egg of the box' },
  ])

  if (!draft) return <Waiting />
  const egg = box.eggs.find((e) => e.name === chosen)
  const eggsNow = box.eggs.map((e) => asLook(seenNow(e, eggOf(draft, e.name), draft.moves[e.name])))
  const said = exceptions(draft)
  return (
    <Box maxWidth="67.5rem">
      <Flex align="baseline" gap={3} css={{ [TIGHT]: { display: 'block' } }}>
        <chakra.h1 fontSize="figure" fontWeight="heavy" lineHeight={1.1}>
          {box.name}
        </chakra.h1>
        <Span color="soft" flex="1" minWidth={0}>
          {box.cabinet}, {box.shelf}; {stagesOf(box)}
        </Span>
        <DoorClock since={draft.openedAt} />
      </Flex>
      <DueLines
        box={box.name}
        code={box.clutches[0]?.code ?? ''}
        due={box.due}
        postponed={box.postponed}
      />
      <Box mt={3}>
        <Caution moment="hands on eggs" />
      </Box>
      <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} gap={{ base: 5, lg: 10 }} mt={1}>
        <div>
          <Grid
            // Wide enough on a phone for a damp thumb on each egg.
            templateColumns={{
              base: 'minmax(0, 3fr) minmax(0, 8fr)',
              md: 'minmax(0, 5fr) minmax(0, 9fr)',
            }}
            gap={2}
          >
            <LastVisit box={box} />
            <figure>
              <ChoosableBox
                eggs={eggsNow}
                medium={box.box_water.medium}
                onGrid={box.on_grid}
                day={box.clutches[0]?.day ?? 0}
                chosen={chosen}
                onChoose={(egg) => setChosen(chosen === egg ? null : egg)}
              />
              <chakra.figcaption color="soft" fontSize="small" mt={1}>
                now{said ? `: ${said} ${said === 1 ? 'exception' : 'exceptions'}` : ', as before'}
              </chakra.figcaption>
            </figure>
          </Grid>
          {!egg && (
            <Text color="soft" mt={2}>
              Tap an egg that has changed. The others are recorded as before.
            </Text>
          )}
        </div>
        <Box>
          {egg ? (
            <EggPanel box={box} round={round} egg={egg} draft={draft} onChange={change} />
          ) : (
            <BoxPanel box={box} round={round} draft={draft} onChange={change} />
          )}
        </Box>
      </Grid>
      <ActBar>
        {egg ? (
          <Button onClick={() => setChosen(null)}>Box</Button>
        ) : (
          <Button onClick={leave} aria-label="Leave without recording anything">
            Leave
          </Button>
        )}
        <Button
          variant="act"
          flex="1"
          minWidth={0}
          maxWidth={{ md: '26.25rem' }}
          flexDirection="column"
          gap={0}
          lineHeight={1.15}
          disabled={!!wrong}
          onClick={() => void shut()}
        >
          {said ? 'Rest as before, shut' : 'All as before, shut'}
          {next && (
            <Span fontSize="fine" fontWeight="medium">
              next {next.name}, {next.cabinet}
            </Span>
          )}
        </Button>
      </ActBar>
    </Box>
  )
}

function LastVisit({ box }: { box: RoundBox }) {
  const { last_weighed_g } = box.box_water
  const words = [
    box.visited ? day(box.last_visit_at) : `lay day, ${day(box.last_visit_at)}`,
    ...(box.lid ? [`lid ${box.lid}`] : []),
    ...(last_weighed_g !== null ? [`${last_weighed_g} g`] : []),
  ]
  return (
    <figure>
      <BoxDrawing
        eggs={box.eggs.map(asLook)}
        medium={box.box_water.medium}
        width={200}
        label={`Last visit, ${words.join(', ')}`}
      />
      <chakra.figcaption color="soft" fontSize="small" mt={1}>
        <Link to={`/clutches/${box.clutches[0]?.code ?? ''}`}>
          <Span textDecoration="underline" textUnderlineOffset="3px">
            {words.join(', ')}
          </Span>
        </Link>
      </chakra.figcaption>
    </figure>
  )
}

/** 0 to 4 and the letters of the signs, for the chosen egg. */
function useSignKeys(
  box: RoundBox,
  draft: Draft | null,
  chosen: string | null,
  change: (draft: Draft) => void,
) {
  const egg = box.eggs.find((e) => e.name === chosen && !e.slug)
  useKeys(
    'chosen',
    `Egg ${chosen}`,
    draft && egg
      ? [
          {
            keys: ['0', '1', '2', '3', '4'],
            shown: '0 to 4',
            what: 'its dents, from none to collapsed',
            act: (key) => change(withEgg(draft, egg.name, { grade: Number(key) })),
          },
          ...SIGN_GROUPS.map((group) => ({
            keys: [group.letter],
            what: group.legend.toLowerCase(),
            act: () => change(nextValue(draft, egg.name, group)),
          })),
        ]
      : null,
  )
}
