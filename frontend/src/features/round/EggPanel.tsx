import { Box, chakra, Flex, HStack, Span, Text } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import { GRADE_WORDS, GRADES } from '@/eggs/look'
import type { Schemas } from '@/shared/api/client'
import { asLook } from '@/shared/api/eggLook'
import { useRules } from '@/shared/api/queries'
import { day } from '@/shared/dates'
import { ShellChips } from '@/shared/shells/ShellChips'
import { toggled } from '@/shared/toggled'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { Chips } from '@/shared/ui/Chips'
import { Choices } from '@/shared/ui/Choices'
import { Notice } from '@/shared/ui/page'
import { Grams } from './boxFields'
import { type Draft, type EggDraft, eggOf, grams, seenNow, withEgg, withSign } from './draft'
import { EggCamera } from './EggCamera'
import { MoveEgg } from './MoveEggs'
import type { Round, RoundBox } from './queries'
import { drawnSign, EGG_ACTS, SIGN_GROUPS } from './signs'

type Props = {
  box: RoundBox
  round: Round
  egg: Schemas['EggResponse']
  draft: Draft
  onChange: (draft: Draft) => void
}

/** One egg or slug of the open box: how it was, how it is, and what differs, each a tap. */
export function EggPanel(props: Props) {
  return props.egg.slug ? <SlugPanel {...props} /> : <LivePanel {...props} />
}

function SlugPanel({ egg, draft, onChange }: Props) {
  const mine = eggOf(draft, egg.name)
  const change = (changed: Partial<EggDraft>) => onChange(withEgg(draft, egg.name, changed))
  return (
    <chakra.section aria-label={`Slug ${egg.name}`} display="flex" flexDirection="column" gap={4}>
      <p>Slug {egg.name}: infertile. It may stay in or go out; a mouldy one is better out.</p>
      <Chips
        legend="Done"
        chips={EGG_ACTS.filter((act) => act.value === 'removed')}
        on={mine.acts}
        onToggle={(act) => change({ acts: toggled(mine.acts, act) })}
      />
      {mine.acts.includes('removed') && <TakenOut egg={egg} mine={mine} onChange={change} />}
    </chakra.section>
  )
}

function LivePanel({ box, round, egg, draft, onChange }: Props) {
  const mine = eggOf(draft, egg.name)
  const now = seenNow(egg, mine)
  const rules = useRules().data
  const asked = SIGN_GROUPS.filter((group) => egg.share >= (rules?.asked_from[group.kind] ?? 0))
  const torchSigns = rules?.torch_signs ?? []
  const doubt =
    (mine.grade ?? 0) > egg.allowed_grade ||
    Object.entries(mine.signs).some(([kind, value]) => torchSigns.includes(`${kind}.${value}`))
  const powder = mine.acts.includes('powdered') || (now.signs.mould ?? 'none') !== 'none'
  const change = (changed: Partial<EggDraft>) => onChange(withEgg(draft, egg.name, changed))
  return (
    <chakra.section aria-label={`Egg ${egg.name}`} display="flex" flexDirection="column" gap={4}>
      <HStack gap={4}>
        <div>
          <chakra.h2 fontSize="large" fontWeight="heavy" lineHeight={1.2}>
            Egg {egg.name}
          </chakra.h2>
          <Link to={`/clutches/${egg.clutch}/eggs/${egg.number}`}>
            <Span color="yolkInk" textDecoration="underline" textUnderlineOffset="3px">
              {egg.standing && egg.standing !== 'sound' ? `Why ${egg.standing}?` : 'Its page'}
            </Span>
          </Link>
        </div>
        <Flex gap={3} marginStart="auto">
          <Was egg={egg} />
          <figure>
            <EggDrawing egg={asLook(now)} size={72} day={dayOf(box, egg)} />
            <chakra.figcaption fontSize="fine" color="soft" textAlign="center">
              now
            </chakra.figcaption>
          </figure>
        </Flex>
        {draft.eggs[egg.name] && (
          <Button
            variant="bare"
            size="small"
            onClick={() => onChange(withEgg(draft, egg.name, CLEARED))}
          >
            As before
          </Button>
        )}
      </HStack>
      <Choices
        legend={
          <>
            Dents; normal now up to {GRADE_WORDS[egg.allowed_grade as 0]}
            <Key>0 to 4</Key>
          </>
        }
        columns={5}
        choices={GRADES.map((grade) => ({
          value: String(grade),
          label: <Span fontSize="fine">{GRADE_WORDS[grade]}</Span>,
          drawing: (
            <EggDrawing
              egg={{ number: egg.number, grade, shells: egg.shells }}
              size={50}
              decorative
            />
          ),
        }))}
        value={mine.grade === undefined ? null : String(mine.grade)}
        onChoose={(grade) => onChange(withEgg(draft, egg.name, { grade: Number(grade) }))}
      />
      {doubt && (
        <Notice label="Candle it now">
          {mine.vessels === undefined
            ? 'The torch settles it before anything else does.'
            : 'Done; what the torch showed is below.'}
        </Notice>
      )}
      {powder && (
        <div>
          <Caution moment="mould" />
          <Text color="soft">Its method with mould: {box.mould_method}.</Text>
        </div>
      )}
      {asked.some((group) => group.kind === 'touch') && <Caution moment="blades" />}
      {asked.map((group) => (
        <Choices
          key={group.kind}
          legend={
            <>
              {group.legend}
              <Key>{group.letter}</Key>
            </>
          }
          columns={Math.max(3, group.choices.length)}
          choices={group.choices.map((choice) => ({
            value: choice.value,
            label: <Span fontSize="fine">{choice.label}</Span>,
            drawing: drawnSign(choice, egg.number, now.shells),
          }))}
          value={chosen(mine, group.kind)}
          onChoose={(value) =>
            onChange(
              group.kind === 'vessels'
                ? withEgg(draft, egg.name, { vessels: value as Schemas['Vessels'] })
                : withSign(draft, egg.name, group.kind, value),
            )
          }
        />
      ))}
      <ShellChips
        legend="Shell, as it is now"
        shells={mine.shells ?? egg.shells}
        onChange={(shells) =>
          change({ shells: sameMarks(shells, egg.shells) ? undefined : shells })
        }
      />
      <Chips
        legend="Done to this egg"
        chips={EGG_ACTS}
        on={mine.acts}
        onToggle={(act) => change({ acts: toggled(mine.acts, act) })}
      />
      {mine.acts.includes('removed') && (
        <>
          <Text color="soft">
            It leaves every count of this box. While it might live, keep it: moulded eggs hatch, and
            a dead egg rarely harms its neighbours.
          </Text>
          <TakenOut egg={egg} mine={mine} onChange={change} />
        </>
      )}
      <MoveEgg box={box} round={round} egg={egg} draft={draft} onChange={onChange} />
      <EggCamera owner={egg.clutch_id} egg={egg.number} torch={mine.vessels !== undefined} />
    </chakra.section>
  )
}

/** Whether two lists of marks say the same. */
function sameMarks(one: readonly string[], other: readonly string[]): boolean {
  return one.length === other.length && one.every((mark) => other.includes(mark))
}

/** The day of the egg's own clutch. */
function dayOf(box: RoundBox, egg: Schemas['EggResponse']): number {
  return box.clutches.find(({ id }) => id === egg.clutch_id)?.day ?? 0
}

const CLEARED: EggDraft = {
  grade: undefined,
  vessels: undefined,
  shells: undefined,
  signs: {},
  acts: [],
  mass: undefined,
}

function chosen(mine: ReturnType<typeof eggOf>, kind: (typeof SIGN_GROUPS)[number]['kind']) {
  return (kind === 'vessels' ? mine.vessels : mine.signs[kind]) ?? null
}

/** What is taken out no longer weighs in the box: its own grams, so that the water stays right. */
function TakenOut({
  egg,
  mine,
  onChange,
}: {
  egg: Schemas['EggResponse']
  mine: EggDraft
  onChange: (changed: Partial<EggDraft>) => void
}) {
  const wrong = Number.isNaN(grams(mine.mass ?? ''))
  return (
    <Box maxWidth="16.25rem">
      <Grams
        label="It weighs, g"
        value={mine.mass ?? ''}
        error={wrong ? 'Grams as a number, like 82.' : undefined}
        help={egg.mass_g === null ? 'for the water by the scale' : `${egg.mass_g} g on lay day`}
        onChange={(mass) => onChange({ mass })}
      />
    </Box>
  )
}

/** The key that does it, where there are keys. */
function Key({ children }: { children: ReactNode }) {
  return (
    <chakra.kbd hideBelow="md" ms={2} color="soft" fontFamily="inherit" fontWeight="medium">
      {children}
    </chakra.kbd>
  )
}

function Was({ egg }: { egg: Schemas['EggResponse'] }) {
  return (
    <figure>
      <EggDrawing egg={asLook(egg)} size={72} decorative />
      <chakra.figcaption fontSize="fine" color="soft" textAlign="center">
        {egg.looked_at ? day(egg.looked_at) : 'not seen yet'}
      </chakra.figcaption>
    </figure>
  )
}
