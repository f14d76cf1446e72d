import { Box, chakra, Flex, Grid, Span, Text } from '@chakra-ui/react'
import { type ReactNode, useState } from 'react'
import { Link } from 'react-router'
import { BoxDrawing } from '@/eggs/BoxDrawing'
import { ChoosableBox } from '@/eggs/ChoosableBox'
import { useAlike } from '@/eggs/useAlike'
import { asLook } from '@/shared/api/eggLook'
import { day } from '@/shared/dates'
import { useKeys } from '@/shared/keys/useKeys'
import { TIGHT } from '@/shared/theme/tight'
import { ActBar } from '@/shared/ui/ActBar'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { BoxPanel } from './BoxPanel'
import { type ChangeDraft, type Draft, eggOf, exceptions, seenNow, withEgg } from './draft'
import { EggPanel } from './EggPanel'
import { nextValue } from './keys'
import { type Round, type RoundBox, stagesOf } from './queries'
import { SIGN_GROUPS } from './signs'

/** A visit to a box: last time beside this one, exceptions only. */
export function VisitForm({
  box,
  round,
  draft,
  onChange,
  clock,
  reasons,
  leave,
  record,
}: {
  box: RoundBox
  round: Round
  draft: Draft
  onChange: ChangeDraft
  /** When it was, or how long the door has been open. */
  clock: ReactNode
  /** Why the box is opened. */
  reasons?: ReactNode
  /** Beside the eggs the way out; beside one egg that back to the box. */
  leave: ReactNode
  record: ReactNode
}) {
  const [chosen, setChosen] = useState<string | null>(null)
  useSignKeys(box, draft, chosen, onChange)
  const egg = box.eggs.find((e) => e.name === chosen)
  const eggsNow = useAlike(
    box.eggs.map((e) => asLook(seenNow(e, eggOf(draft, e.name), draft.moves[e.name]))),
  )
  const said = exceptions(draft)
  return (
    <Box maxWidth="67.5rem">
      <Flex
        align="baseline"
        wrap="wrap"
        columnGap={3}
        rowGap={2}
        css={{ [TIGHT]: { display: 'block' } }}
      >
        <chakra.h1 fontSize="figure" fontWeight="heavy" lineHeight={1.1}>
          {box.name}
        </chakra.h1>
        <Span color="soft" flex={{ base: '1 1 11rem', md: '1' }} minWidth={0}>
          {box.cabinet}, {box.shelf}; {stagesOf(box)}
        </Span>
        {clock}
      </Flex>
      {reasons}
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
                onChoose={(egg) => setChosen((held) => (held === egg ? null : egg))}
              />
              <chakra.figcaption color="soft" fontSize="small" mt={1}>
                {draft.closedAt ? 'then' : 'now'}
                {said ? `: ${said} ${said === 1 ? 'exception' : 'exceptions'}` : ', as before'}
              </chakra.figcaption>
            </figure>
          </Grid>
          {!egg && (
            <Text color="soft" mt={2}>
              Tap an egg that has changed. The others are recorded as before.
            </Text>
          )}
        </div>
        <div>
          {egg ? (
            <EggPanel box={box} round={round} egg={egg} draft={draft} onChange={onChange} />
          ) : (
            <BoxPanel box={box} round={round} draft={draft} onChange={onChange} />
          )}
        </div>
      </Grid>
      <ActBar>
        {egg ? <Button onClick={() => setChosen(null)}>Box</Button> : leave}
        {record}
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
  change: ChangeDraft,
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
            act: (key) => change((held) => withEgg(held, egg.name, { grade: Number(key) })),
          },
          ...SIGN_GROUPS.map((group) => ({
            keys: [group.letter],
            what: group.legend.toLowerCase(),
            act: () => change((held) => nextValue(held, egg.name, group)),
          })),
        ]
      : null,
  )
}
