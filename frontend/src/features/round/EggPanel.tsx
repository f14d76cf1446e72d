import { Box, chakra, Span, Text } from '@chakra-ui/react'
import { memo, type ReactNode } from 'react'
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
import {
  type ChangeDraft,
  type Draft,
  type EggDraft,
  eggOf,
  grams,
  seenNow,
  withEgg,
  withSign,
} from './draft'
import { EggCamera } from './EggCamera'
import { MoveEgg } from './MoveEggs'
import type { Round, RoundBox } from './queries'
import { drawnSign, EGG_ACTS, SIGN_GROUPS, type SignGroup } from './signs'

type Props = {
  box: RoundBox
  round: Round
  egg: Schemas['EggResponse']
  draft: Draft
  onChange: ChangeDraft
}

/** One egg or slug of the open box: how it was, how it is, and what differs, each a tap. */
export function EggPanel(props: Props) {
  return props.egg.slug ? <SlugPanel {...props} /> : <LivePanel {...props} />
}

function SlugPanel({ egg, draft, onChange }: Props) {
  const mine = eggOf(draft, egg.name)
  return (
    <chakra.section aria-label={`Slug ${egg.name}`} display="flex" flexDirection="column" gap={4}>
      <p>Slug {egg.name}: infertile. It may stay in or go out; a mouldy one is better out.</p>
      <Done legend="Done" acts={SLUG_ACTS} on={mine.acts} name={egg.name} onChange={onChange} />
      {mine.acts.includes('removed') && (
        <TakenOut egg={egg} mass={mine.mass ?? ''} onChange={onChange} />
      )}
    </chakra.section>
  )
}

const SLUG_ACTS = EGG_ACTS.filter((act) => act.value === 'removed')

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
  return (
    <chakra.section aria-label={`Egg ${egg.name}`} display="flex" flexDirection="column" gap={4}>
      <chakra.div display="flex" gap={4} alignItems="center">
        <EggTitle egg={egg} />
        <chakra.div display="flex" gap={3} marginStart="auto">
          <Was egg={egg} />
          <figure>
            <EggDrawing egg={asLook(now)} size={72} day={dayOf(box, egg)} />
            <chakra.figcaption fontSize="fine" color="soft" textAlign="center">
              now
            </chakra.figcaption>
          </figure>
        </chakra.div>
        {draft.eggs[egg.name] && (
          <Button
            variant="bare"
            size="small"
            onClick={() => onChange((held) => withEgg(held, egg.name, CLEARED))}
          >
            As before
          </Button>
        )}
      </chakra.div>
      <Dents egg={egg} grade={mine.grade} onChange={onChange} />
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
        <Sign
          key={group.kind}
          group={group}
          egg={egg}
          shells={now.shells}
          value={chosen(mine, group.kind)}
          onChange={onChange}
        />
      ))}
      <Shell egg={egg} shells={mine.shells ?? egg.shells} onChange={onChange} />
      <Done
        legend="Done to this egg"
        acts={EGG_ACTS}
        on={mine.acts}
        name={egg.name}
        onChange={onChange}
      />
      {mine.acts.includes('removed') && (
        <>
          <Text color="soft">
            It leaves every count of this box. While it might live, keep it: moulded eggs hatch, and
            a dead egg rarely harms its neighbours.
          </Text>
          <TakenOut egg={egg} mass={mine.mass ?? ''} onChange={onChange} />
        </>
      )}
      <MoveEgg box={box} round={round} egg={egg} moves={draft.moves} onChange={onChange} />
      <EggCamera owner={egg.clutch_id} egg={egg.number} torch={mine.vessels !== undefined} />
    </chakra.section>
  )
}

function EggTitle({ egg }: Pick<Props, 'egg'>) {
  return (
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
  )
}

type PartProps = Pick<Props, 'egg' | 'onChange'>

const Dents = memo(function Dents({
  egg,
  grade,
  onChange,
}: PartProps & { grade: number | undefined }) {
  return (
    <Choices
      legend={
        <>
          Dents; normal now up to {GRADE_WORDS[egg.allowed_grade as 0]}
          <Key>0 to 4</Key>
        </>
      }
      columns={5}
      choices={GRADES.map((known) => ({
        value: String(known),
        label: <Span fontSize="fine">{GRADE_WORDS[known]}</Span>,
        drawing: (
          <EggDrawing
            egg={{ number: egg.number, grade: known, shells: egg.shells }}
            size={50}
            decorative
          />
        ),
      }))}
      value={grade === undefined ? null : String(grade)}
      onChoose={(next) => onChange((held) => withEgg(held, egg.name, { grade: Number(next) }))}
    />
  )
})

const Sign = memo(function Sign({
  group,
  egg,
  shells,
  value,
  onChange,
}: PartProps & { group: SignGroup; shells: string[]; value: string | null }) {
  return (
    <Choices
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
        drawing: drawnSign(choice, egg.number, shells),
      }))}
      value={value}
      onChoose={(next) =>
        onChange((held) =>
          group.kind === 'vessels'
            ? withEgg(held, egg.name, { vessels: next as Schemas['Vessels'] })
            : withSign(held, egg.name, group.kind, next),
        )
      }
    />
  )
})

const Shell = memo(function Shell({
  egg,
  shells,
  onChange,
}: PartProps & { shells: Schemas['Shell'][] }) {
  return (
    <ShellChips
      legend="Shell, as it is now"
      shells={shells}
      onChange={(next) =>
        onChange((held) =>
          withEgg(held, egg.name, { shells: sameMarks(next, egg.shells) ? undefined : next }),
        )
      }
    />
  )
})

const Done = memo(function Done({
  legend,
  acts,
  on,
  name,
  onChange,
}: {
  legend: string
  acts: typeof EGG_ACTS
  on: Schemas['EggActKind'][]
  name: string
  onChange: ChangeDraft
}) {
  return (
    <Chips
      legend={legend}
      chips={acts}
      on={on}
      onToggle={(act) =>
        onChange((held) => withEgg(held, name, { acts: toggled(eggOf(held, name).acts, act) }))
      }
    />
  )
})

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
function TakenOut({ egg, mass, onChange }: PartProps & { mass: string }) {
  const wrong = Number.isNaN(grams(mass))
  return (
    <Box maxWidth="16.25rem">
      <Grams
        label="It weighs, g"
        value={mass}
        error={wrong ? 'Grams as a number, like 82.' : undefined}
        help={egg.mass_g === null ? 'for the water by the scale' : `${egg.mass_g} g on lay day`}
        onChange={(next) => onChange((held) => withEgg(held, egg.name, { mass: next }))}
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
