import { chakra, Flex, HStack, Span, Strong, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { dayAndTime } from '@/shared/dates'
import { FollowForm } from '@/shared/hatchlings/FollowForm'
import { HatchlingForm } from '@/shared/hatchlings/HatchlingForm'
import type { Hatchling } from '@/shared/hatchlings/queries'
import { comesNext, hatchlingInWords, whereabouts } from '@/shared/hatchlings/words'
import { takeMoment } from '@/shared/moment/moment'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import type { HatchingClutch, HatchingEgg } from './queries'

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
          <Button type="button" onClick={() => setWriting(writing === 1 ? null : 1)}>
            Record hatchling {number}
          </Button>
        </HStack>
      )}
      {egg.hatchlings.map((hatchling) => (
        <One
          key={hatchling.id}
          hatchling={hatchling}
          out={emerged_at ?? ''}
          onCorrect={() => setWriting(hatchling.part)}
        />
      ))}
      {form}
      {egg.hatchlings.length === 1 && writing === null && (
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
  onCorrect: () => void
}) {
  const [following, setFollowing] = useState<'meal' | 'weight' | null>(null)
  const shed = useAct(
    () =>
      answer(
        api.POST('/api/hatchlings/{hatchling}/shed', {
          params: { path: { hatchling: hatchling.id } },
          body: { at: takeMoment() },
        }),
      ),
    (act) => act,
  )
  const away = whereabouts(hatchling)
  return (
    <div>
      <Text>
        <Link to={`/hatchlings/${hatchling.id}`}>
          <Strong textDecoration="underline" textUnderlineOffset="3px">
            {hatchling.name}
          </Strong>
        </Link>{' '}
        {hatchlingInWords(hatchling)}
      </Text>
      <Text color="soft">
        Out {dayAndTime(out)}. {away ? sentence(away) : comesNext(hatchling)}
      </Text>
      <Flex gap={2} wrap="wrap" mt={2} display={away ? 'none' : 'flex'}>
        {hatchling.sheds.length === 0 && (
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
        <Button
          type="button"
          size="small"
          variant="bare"
          aria-label={`Edit ${hatchling.name}`}
          onClick={onCorrect}
        >
          Edit
        </Button>
      </Flex>
      {following && (
        <FollowForm hatchling={hatchling} what={following} onDone={() => setFollowing(null)} />
      )}
    </div>
  )
}
