import { chakra, Grid, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { ChoosableBox } from '@/eggs/ChoosableBox'
import { EggDrawing } from '@/eggs/EggDrawing'
import { GRADE_WORDS, GRADES } from '@/eggs/look'
import { answer, api, type Schemas } from '@/shared/api/client'
import { asLook } from '@/shared/api/eggLook'
import { useAct } from '@/shared/api/queries'
import { useKeys } from '@/shared/keys/useKeys'
import { takeMoment } from '@/shared/moment/moment'
import { TIGHT } from '@/shared/theme/tight'
import { developed } from '@/shared/units'
import { Torchlight } from './Torchlight'

type Clutch = Schemas['ClutchResponse']
type Egg = Schemas['EggResponse']

const COLUMNS = '44px repeat(5, minmax(0, 1fr))'

/** The box as it lies, and beside it one tap for each egg's dents. */
export function EggGrades({ clutch, box }: { clutch: Clutch; box: Schemas['BoxResponse'] }) {
  const [chosen, setChosen] = useState<string | null>(null)
  const grade = useAct(
    ({ egg: { clutch: code, number }, grade }: { egg: Egg; grade: number }) =>
      answer(
        api.POST('/api/clutches/{code}/eggs/{number}/grades', {
          params: { path: { code, number } },
          body: { grade, at: takeMoment() },
        }),
      ),
    (act) => act,
  )
  const live = box.eggs.filter((egg) => !egg.slug && !egg.removed_at)

  const inHand = live.find((egg) => egg.name === chosen)
  useKeys(
    'chosen',
    `Egg ${chosen}`,
    inHand
      ? [
          {
            keys: ['0', '1', '2', '3', '4'],
            shown: '0 to 4',
            what: 'its dents, from none to collapsed',
            act: (key) => grade.mutate({ egg: inHand, grade: Number(key) }),
          },
        ]
      : null,
  )

  return (
    <Grid templateColumns={{ base: '1fr', lg: '1fr 1fr' }} gap={{ base: 6, lg: 10 }}>
      <div>
        <ChoosableBox
          eggs={box.eggs.map(asLook)}
          medium={box.box_water?.medium ?? box.medium ?? ''}
          onGrid={box.on_grid}
          day={clutch.day}
          chosen={chosen}
          onChoose={setChosen}
          onReach={setChosen}
        />
        <Text mt={2} color="soft" fontSize="small">
          {box.box_water?.medium ?? box.medium}, {box.box_water?.closing ?? box.closing}.
          {box.eggs.some((egg) => egg.standing && egg.standing !== 'sound') &&
            ' One ring: on watch; two: failing; hatched: probably lost.'}
        </Text>
      </div>
      <Stack gap={1}>
        <Grid
          aria-hidden
          templateColumns={COLUMNS}
          color="soft"
          fontSize="fine"
          textAlign="center"
          // Five words side by side have no room to grow; every button says its own.
          css={{ [TIGHT]: { fontSize: '13px', overflowWrap: 'normal' } }}
        >
          <span />
          {GRADE_WORDS.map((words) => (
            <span key={words}>{words}</span>
          ))}
        </Grid>
        {live.map((egg) => (
          <EggRow
            key={egg.name}
            egg={egg}
            chosen={chosen === egg.name}
            onGrade={(value) => {
              setChosen(egg.name)
              grade.mutate({ egg, grade: value })
            }}
          />
        ))}
        <Judgement clutch={clutch} box={box} chosen={chosen} />
        {box.eggs
          .filter((egg) => egg.name === chosen)
          .map((egg) => (
            <Torchlight key={egg.name} code={egg.clutch} egg={egg} />
          ))}
      </Stack>
    </Grid>
  )
}

function EggRow({
  egg,
  chosen,
  onGrade,
}: {
  egg: Egg
  chosen: boolean
  onGrade: (grade: number) => void
}) {
  return (
    <chakra.fieldset
      display="grid"
      gridTemplateColumns={COLUMNS}
      alignItems="stretch"
      bg={chosen ? 'faint' : undefined}
    >
      <chakra.legend srOnly>Egg {egg.name}: how dented is it now?</chakra.legend>
      <Span aria-hidden fontSize="large" fontWeight="heavy" alignSelf="center" ps={2}>
        {egg.name}
      </Span>
      {GRADES.map((grade) => {
        const held = egg.grade === grade
        const allowed = grade <= egg.allowed_grade
        return (
          <chakra.button
            key={grade}
            type="button"
            aria-pressed={held}
            aria-label={`Egg ${egg.name}: ${GRADE_WORDS[grade]}${allowed ? ', normal now' : ', early now'}`}
            onClick={() => onGrade(grade)}
            display="flex"
            alignItems="center"
            justifyContent="center"
            minHeight="3.25rem"
            cursor="pointer"
            borderRadius="small"
            border="2.5px solid"
            borderColor={held ? (allowed ? 'ink' : 'vessel') : 'transparent'}
            bg={held ? 'sheet' : undefined}
            opacity={held ? 1 : 0.62}
            _hover={{ bg: 'faint', opacity: 1 }}
            position="relative"
          >
            <EggDrawing
              egg={{ number: egg.number, grade, shells: egg.shells }}
              size={46}
              decorative
            />
            {allowed && <NormalNow />}
          </chakra.button>
        )
      })}
    </chakra.fieldset>
  )
}

/** The line under the grades that are normal at this stage. */
function NormalNow() {
  return <Span position="absolute" insetX={0} bottom="-2px" height="4px" bg="sound" aria-hidden />
}

function Judgement({
  clutch,
  box,
  chosen,
}: {
  clutch: Clutch
  box: Schemas['BoxResponse']
  chosen: string | null
}) {
  const egg = box.eggs.find((e) => e.name === chosen)
  if (!egg) {
    return (
      <Text color="soft" mt={3}>
        Tap how dented each egg is today. The line underneath marks what is normal at{' '}
        {developed(clutch.forecast?.fraction ?? 0)}.
      </Text>
    )
  }
  const stage = `day ${clutch.day}, ${developed(egg.share)}`
  return (
    <Text mt={3} role="status">
      <Strong>
        {egg.slug ? 'Slug' : 'Egg'} {egg.name}, {stage}:
      </Strong>{' '}
      {egg.slug ? 'infertile, nothing to judge.' : (egg.advice ?? 'not looked at yet.')}{' '}
      <Link to={`/clutches/${egg.clutch}/eggs/${egg.number}`}>
        <Span color="yolkInk" textDecoration="underline" textUnderlineOffset="3px">
          {egg.standing ? `${egg.standing}: why?` : 'Its page'}
        </Span>
      </Link>
    </Text>
  )
}
