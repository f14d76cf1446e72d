import { Box, Flex, Grid, Span } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useLiveQuery } from 'dexie-react-hooks'
import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import { under } from '@/shared/api/under'
import { store } from '@/shared/offline/store'
import { ActBar } from '@/shared/ui/ActBar'
import { Button } from '@/shared/ui/Button'
import { Notice, Title, Waiting } from '@/shared/ui/page'
import { PracticeMark } from '../PracticeMark'
import { keptAs, type Look, lookQuery, useAskAgain, useJudge } from '../queries'
import { CaseView } from './CaseView'
import { JudgeForm } from './JudgeForm'
import { Told } from './Told'
import { Truth } from './Truth'
import { deckName } from './words'

/** A session of single eggs: each is judged, then its truth is told. */
export function Component() {
  const id = Number(useParams().id)
  const look = useQuery(lookQuery(id))
  if (!look.data) return <Waiting problem={look.error?.message} />
  return <Session key={id} look={look.data} />
}

function Session({ look }: { look: Look }) {
  const waiting = useWaitingHere(look)
  const judged = new Set([...look.told.map(({ egg }) => egg), ...waiting])
  const next = look.cases.find(({ egg }) => !judged.has(egg))?.egg
  const [at, setAt] = useState(next ?? 0)
  useFetchedPictures(look.id, look.cases.length)
  const egg = look.cases.find((one) => one.egg === at)
  return (
    <Box maxWidth="72rem">
      <PracticeMark />
      <Flex align="baseline" gap={4} wrap="wrap" mb={4}>
        <Title>{deckName(look.deck)}</Title>
        <Span color="soft">
          {egg
            ? `egg ${at} of ${look.cases.length}`
            : `${judged.size} of ${look.cases.length} judged`}
          {look.seed !== null && `, seed ${look.seed}`}
        </Span>
      </Flex>
      {egg ? (
        <OneEgg
          key={egg.egg}
          look={look}
          egg={egg}
          kept={waiting.includes(egg.egg)}
          onNext={() => setAt(next ?? 0)}
          last={next === undefined}
        />
      ) : (
        <Told look={look} waiting={waiting.length} />
      )}
    </Box>
  )
}

function OneEgg({
  look,
  egg,
  kept,
  onNext,
  last,
}: {
  look: Look
  egg: Look['cases'][number]
  kept: boolean
  onNext: () => void
  last: boolean
}) {
  const judge = useJudge(look)
  const told = look.told.find((one) => one.egg === egg.egg)
  useEffect(() => {
    window.scrollTo({ top: 0 })
  }, [])
  return (
    <Grid
      templateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }}
      columnGap={10}
      rowGap={6}
    >
      <CaseView session={look.id} egg={egg} />
      {told || kept ? (
        <div>
          {told ? (
            <Truth told={told} />
          ) : (
            <Notice label="Kept on this device.">
              The house is out of reach. The truth of this egg comes when it answers again.
            </Notice>
          )}
          <ActBar>
            <Button type="button" variant="act" flex="1" onClick={onNext}>
              {last ? 'How I did' : 'Next egg'}
            </Button>
          </ActBar>
        </div>
      ) : (
        <JudgeForm
          egg={egg}
          asking={judge.isPending}
          problem={judge.error?.detail ?? null}
          onSay={(said) => judge.mutate({ egg: egg.egg, said })}
        />
      )}
    </Grid>
  )
}

/** Eggs of a session that were judged while the house was out of reach; asked for once it is back. */
function useWaitingHere(look: Look): number[] {
  const session = keptAs(look)
  const kept = useLiveQuery(() => store.judgements.where({ session }).toArray(), [session]) ?? []
  const askAgain = useAskAgain(look)
  const waiting = kept.map(({ egg }) => egg)
  useQuery({
    queryKey: ['practice', 'kept', session, waiting.join(',')],
    enabled: waiting.length > 0,
    queryFn: () => askAgain().then(() => true),
    networkMode: 'always',
    retry: true,
    retryDelay: (attempt) => Math.min(1_000 * 2 ** attempt, 8_000),
    staleTime: 0,
    gcTime: 0,
  })
  return waiting
}

/**
 * The pictures of all eggs are fetched, so that a session goes on without a network: one after
 * another, for a slow computer draws the one that is looked at first.
 */
function useFetchedPictures(id: number, eggs: number) {
  useEffect(() => {
    let gone = false
    const fetchFrom = (egg: number) => {
      if (gone || egg > eggs) return
      const picture = new Image()
      picture.onload = () => fetchFrom(egg + 1)
      picture.src = under(`/api/practice/looks/${id}/eggs/${egg}/torch.webp`)
    }
    fetchFrom(1)
    return () => {
      gone = true
    }
  }, [id, eggs])
}
