import { chakra, Flex, HStack, Span, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { day, dayAndTime, dayRange } from '@/shared/dates'
import { traitsInWords } from '@/shared/traits'
import { Button } from '@/shared/ui/Button'
import { FollowForm } from './FollowForm'
import { HatchlingForm } from './HatchlingForm'
import type { HatchingClutch, HatchingEgg, Hatchling } from './queries'

/** What came out of each egg: recorded, weighed, shed, fed. */
export function Hatchlings({ clutch }: { clutch: HatchingClutch }) {
  const out = clutch.eggs.filter(({ egg }) => egg.emerged_at)
  if (out.length === 0) return <Text color="soft">None is out yet.</Text>
  return (
    <ul>
      {out.map((egg) => (
        <OfEgg key={egg.egg.number} egg={egg} clutch={clutch} />
      ))}
    </ul>
  )
}

function OfEgg({ egg, clutch }: { egg: HatchingEgg; clutch: HatchingClutch }) {
  const [writing, setWriting] = useState<number | null>(null)
  const { number, emerged_at } = egg.egg
  const locked = clutch.finished_at !== null
  const form = writing !== null && (
    <HatchlingForm
      code={clutch.code}
      number={number}
      part={writing}
      held={egg.hatchlings.find((h) => h.part === writing)}
      onDone={() => setWriting(null)}
    />
  )
  return (
    <chakra.li py={3} borderTop="1.5px solid" borderColor="line">
      {egg.hatchlings.length === 0 && (
        <HStack gap={3} wrap="wrap">
          <Span flex="1">
            <strong>Hatchling {number}</strong>{' '}
            <Span color="soft">out {dayAndTime(emerged_at ?? '')}</Span>
          </Span>
          {!locked && (
            <Button type="button" onClick={() => setWriting(writing === 1 ? null : 1)}>
              Record hatchling {number}
            </Button>
          )}
        </HStack>
      )}
      {egg.hatchlings.map((hatchling) => (
        <One
          key={hatchling.id}
          hatchling={hatchling}
          out={emerged_at ?? ''}
          onCorrect={locked ? null : () => setWriting(hatchling.part)}
        />
      ))}
      {form}
      {!locked && egg.hatchlings.length === 1 && writing === null && (
        <Button type="button" variant="bare" size="small" onClick={() => setWriting(2)}>
          Twins: a second one from egg {number}
        </Button>
      )}
    </chakra.li>
  )
}

function One({
  hatchling,
  out,
  onCorrect,
}: {
  hatchling: Hatchling
  out: string
  onCorrect: (() => void) | null
}) {
  const [following, setFollowing] = useState<'meal' | 'weight' | null>(null)
  const shed = useAct(
    () =>
      answer(
        api.POST('/api/hatchlings/{hatchling}/shed', {
          params: { path: { hatchling: hatchling.id } },
          body: {},
        }),
      ),
    (act) => act,
  )
  return (
    <div>
      <Text>
        <strong>{hatchling.name}</strong> {describe(hatchling)}
      </Text>
      <Text color="soft">
        Out {dayAndTime(out)}. {comesNext(hatchling)}
      </Text>
      <Flex gap={2} wrap="wrap" mt={2}>
        {!hatchling.shed_at && (
          <Button
            type="button"
            size="small"
            disabled={shed.isPending}
            aria-label={`${hatchling.name} has shed`}
            onClick={() => shed.mutate()}
          >
            Has shed
          </Button>
        )}
        <Button
          type="button"
          size="small"
          aria-label={`Meal offered to ${hatchling.name}`}
          onClick={() => setFollowing(following === 'meal' ? null : 'meal')}
        >
          Meal offered
        </Button>
        <Button
          type="button"
          size="small"
          aria-label={`Weigh ${hatchling.name}`}
          onClick={() => setFollowing(following === 'weight' ? null : 'weight')}
        >
          Weigh
        </Button>
        {onCorrect && (
          <Button
            type="button"
            size="small"
            variant="bare"
            aria-label={`Correct ${hatchling.name}`}
            onClick={onCorrect}
          >
            Correct
          </Button>
        )}
      </Flex>
      {following && (
        <FollowForm hatchling={hatchling} what={following} onDone={() => setFollowing(null)} />
      )}
    </div>
  )
}

/** "61.5 g, female, 1 copy of Puzzle, yolk absorbed, kink" */
export function describe(hatchling: Hatchling): string {
  const latest = hatchling.weights.at(-1)
  const traits = traitsInWords({ hatch_year: null, traits: hatchling.traits })
  return [
    latest && `${latest.mass_g} g`,
    hatchling.sex,
    hatchling.size && hatchling.size !== 'usual' && hatchling.size,
    traits || (hatchling.plain && 'no trait shows'),
    hatchling.yolk && `yolk ${hatchling.yolk}`,
    ...hatchling.defects,
    hatchling.note,
  ]
    .filter(Boolean)
    .join(', ')
}

/** When it sheds and eats: as it was, or as it is likely to be. */
export function comesNext(hatchling: Hatchling): string {
  const { shed_at, shed_window, meal_window, meals } = hatchling
  if (!shed_at) {
    return shed_window
      ? `First shed likely ${dayRange(shed_window.p10, shed_window.p90)}; on damp paper until then.`
      : ''
  }
  const shed = `Shed ${day(shed_at)}.`
  const taken = meals.filter((meal) => meal.taken)
  const refused = meals.length - taken.length
  if (taken.length === 0) {
    const tries = refused ? ` Refused ${refused} so far.` : ''
    return meal_window
      ? `${shed} Offer its first meal: mostly taken ${dayRange(meal_window.p10, meal_window.p90)}.${tries}`
      : `${shed}${tries}`
  }
  const eaten = `${taken.length} ${taken.length === 1 ? 'meal' : 'meals'} taken, the last ${day(taken.at(-1)?.at ?? '')}.`
  return `${shed} ${eaten}${hatchling.settled ? ' Settled.' : ''}`
}
