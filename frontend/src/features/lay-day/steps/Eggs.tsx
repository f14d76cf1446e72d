import { Box, chakra, Flex, Grid, HStack, Span, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { BoxDrawing } from '@/eggs/BoxDrawing'
import { EggDrawing } from '@/eggs/EggDrawing'
import type { Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { useKeys } from '@/shared/keys/useKeys'
import { ShellChips } from '@/shared/shells/ShellChips'
import { Button } from '@/shared/ui/Button'
import { Choices } from '@/shared/ui/Choices'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'
import { type Egg, nextToLook, withEgg } from '../steps'
import { EggMass } from './EggMass'
import { HandledWhen } from './HandledWhen'
import { placed } from './Places'

type Vessels = Schemas['Vessels']
type Disc = Schemas['Disc']

const VESSELS: { value: Vessels; label: string }[] = [
  { value: 'strong', label: 'strong vessels' },
  { value: 'weak', label: 'weak or few' },
  { value: 'unsure', label: 'not sure' },
  { value: 'none', label: 'none seen' },
]
const DISCS: { value: Disc; label: string }[] = [
  { value: 'top', label: 'on top' },
  { value: 'side', label: 'at the side' },
  { value: 'under', label: 'underneath' },
]
/** Egg by egg by torchlight: one tap for a good one, one for a slug, more for the others. */
export function Eggs({ day, step, back, change, next }: StepProps) {
  const { eggs, method } = day.state
  const usual = useRules().data?.usual_egg_g
  const [shownEgg, setNumber] = useState(() => nextToLook(eggs))
  // Another device may have counted fewer eggs meanwhile.
  const number = Math.max(1, Math.min(shownEgg, eggs.length))
  const egg = eggs[number - 1]
  const show = (shown: number) => {
    setNumber(shown)
    window.scrollTo(0, 0)
  }
  const answered = (changed: Partial<Egg>) => {
    const all = withEgg(eggs, number, { ...changed, looked: true })
    if (number === eggs.length || all.every((e) => e.looked)) return next({ eggs: all })
    change({ eggs: all })
    show(nextToLook(all))
  }
  const good = () => answered({ slug: false, vessels: 'strong', disc: 'top' })
  const slug = () => answered({ slug: true, vessels: null, disc: null })
  // What nobody noted stays unsaid: a disc alone says nothing of vessels, nor they of it.
  const differs = (changed: Partial<Egg>) =>
    change({ eggs: withEgg(eggs, number, { slug: false, ...changed }) })
  const notCandled = () => answered({ slug: false, vessels: null, disc: null })
  const restNotCandled = () =>
    next({ eggs: eggs.map((e) => (e.looked ? e : { ...e, looked: true })) })
  useKeys(
    'place',
    'Eggs by torchlight',
    egg
      ? [
          { keys: ['1'], what: 'good: disc on top, strong vessels', act: good },
          { keys: ['2'], what: 'slug', act: slug },
          { keys: ['3'], what: 'weak or few vessels', act: () => differs({ vessels: 'weak' }) },
          { keys: ['4'], what: 'not sure', act: () => differs({ vessels: 'unsure' }) },
          {
            keys: ['5'],
            what: 'disc at the side',
            act: () => differs({ disc: 'side' }),
          },
          {
            keys: ['6'],
            what: 'disc underneath',
            act: () => differs({ disc: 'under' }),
          },
          { keys: ['7'], what: 'not candled', act: notCandled },
        ]
      : null,
  )
  if (!egg) {
    return (
      <StepFrame
        day={day}
        step={step}
        back={back}
        onSubmit={(event) => event.preventDefault()}
        photos={null}
      >
        <p>No eggs are counted yet: go back and count them.</p>
      </StepFrame>
    )
  }
  return (
    <StepFrame
      day={day}
      step={step}
      egg={number}
      back={back}
      {...((egg.vessels || egg.disc || egg.slug || egg.looked) && {
        nextLabel: number === eggs.length ? 'Done with the eggs' : `Egg ${number} done`,
      })}
      onSubmit={(event) => {
        event.preventDefault()
        answered({})
      }}
    >
      <HStack gap={4}>
        <Box width="7.375rem" flexShrink={0}>
          <BoxDrawing
            eggs={eggs.map((e, i) => ({ ...placed(e, i), chosen: i === number - 1 }))}
            medium={method.medium}
            width={118}
            label={`The box, egg ${number} marked`}
          />
        </Box>
        <Text fontSize="large" fontWeight="bold" aria-live="polite">
          Egg {number} of {eggs.length}
          {egg.slug && <Span color="soft"> (counted as a slug)</Span>}
          {egg.looked && !egg.slug && !egg.vessels && !egg.disc && (
            <Span color="soft"> (not candled)</Span>
          )}
        </Text>
      </HStack>
      <HandledWhen day={day} change={change} />

      <Grid templateColumns="1fr 1fr" gap={3}>
        <QuickAnswer onClick={good} keyHint="1" accent label="Good: disc on top, strong vessels">
          <EggDrawing
            egg={{ number, grade: 0, candled: { vessels: 'strong', disc: 'top' } }}
            size={96}
            decorative
          />
        </QuickAnswer>
        <QuickAnswer onClick={slug} keyHint="2" label="Slug: yellow, no vessels">
          <EggDrawing egg={{ number, slug: true }} size={96} decorative />
        </QuickAnswer>
      </Grid>

      <Flex gap={3} wrap="wrap">
        <Button type="button" onClick={notCandled}>
          Not candled
        </Button>
        {eggs.filter((e) => !e.looked).length > 1 && (
          <Button type="button" onClick={restNotCandled}>
            None of the rest was candled
          </Button>
        )}
      </Flex>

      <Choices
        legend="Or: vessels"
        columns={{ base: 2, md: 4 }}
        choices={VESSELS.map(({ value, label }) => ({
          value,
          label,
          drawing: (
            <EggDrawing
              egg={{
                number,
                grade: 0,
                candled: { vessels: shown(value), disc: egg.disc ?? 'top' },
              }}
              size={56}
              decorative
            />
          ),
        }))}
        value={egg.slug ? null : (egg.vessels ?? null)}
        onChoose={(vessels) => differs({ vessels })}
      />
      <Choices
        legend="Disc"
        columns={3}
        choices={DISCS.map(({ value, label }) => ({
          value,
          label,
          drawing: (
            <EggDrawing
              egg={{
                number,
                grade: 0,
                candled: { vessels: shown(egg.vessels ?? 'strong'), disc: value },
              }}
              size={56}
              decorative
            />
          ),
        }))}
        value={egg.slug ? null : (egg.disc ?? null)}
        onChoose={(disc) => differs({ disc })}
      />
      <ShellChips
        shells={egg.shells}
        onChange={(shells) => change({ eggs: withEgg(eggs, number, { shells }) })}
      />
      <EggMass
        key={number}
        number={number}
        mass={egg.mass_g ?? null}
        onMass={(mass_g) => change({ eggs: withEgg(eggs, number, { mass_g }) })}
        usual={usual}
      />
      <OtherEggs eggs={eggs} number={number} onChoose={show} />
    </StepFrame>
  )
}

function QuickAnswer({
  label,
  keyHint,
  accent = false,
  onClick,
  children,
}: {
  label: string
  keyHint: string
  accent?: boolean
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <chakra.button
      type="button"
      onClick={onClick}
      display="flex"
      flexDirection="column"
      alignItems="center"
      justifyContent="center"
      gap={2}
      minHeight="8.5rem"
      px={3}
      py={3}
      border="3px solid"
      borderColor={accent ? 'yolkInk' : 'soft'}
      borderRadius="small"
      fontWeight="bold"
      lineHeight={1.2}
      cursor="pointer"
      _hover={{ bg: 'faint' }}
    >
      {children}
      <span>{label}</span>
      <chakra.kbd hideBelow="md" color="soft" fontSize="fine" fontFamily="body">
        key {keyHint}
      </chakra.kbd>
    </chakra.button>
  )
}

/** The way to any other egg, and which have been looked at. */
function OtherEggs({
  eggs,
  number,
  onChoose,
}: {
  eggs: Egg[]
  number: number
  onChoose: (number: number) => void
}) {
  return (
    <chakra.nav aria-label="Eggs" display="flex" flexWrap="wrap" gap={2}>
      {eggs.map((egg, i) => (
        <Button
          key={String(i)}
          type="button"
          size="small"
          aria-current={i + 1 === number ? 'step' : undefined}
          aria-label={`Egg ${i + 1}${egg.looked ? ', looked at' : ''}`}
          onClick={() => onChoose(i + 1)}
          minWidth="thumb"
          fontWeight={i + 1 === number ? 'heavy' : 'medium'}
        >
          {i + 1}
          {egg.looked && <span aria-hidden>✓</span>}
        </Button>
      ))}
    </chakra.nav>
  )
}

/** An egg nobody is sure of is drawn with few vessels. */
function shown(vessels: Vessels): 'strong' | 'weak' | 'broken' | 'none' {
  return vessels === 'unsure' ? 'weak' : vessels
}
