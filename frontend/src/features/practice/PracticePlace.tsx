import { Box, chakra, Flex, Input, Span, Stack, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Problem } from '@/shared/api/client'
import { under } from '@/shared/api/under'
import { counted } from '@/shared/counted'
import { day } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Heading, Title, Waiting } from '@/shared/ui/page'
import { Doing } from './looks/Doing'
import { DECKS, deckName } from './looks/words'
import { practiceQuery, useBegin, useForget } from './queries'
import { SeasonBegin } from './season/SeasonBegin'

/** Eggs of a session begun here. */
const EGGS = 10

/** The trainer: decks to judge, what was begun, and what judging was worth so far. */
export function Component() {
  const practice = useQuery(practiceQuery)
  const [seed, setSeed] = useState('')
  const navigate = useNavigate()
  const begin = useBegin(({ id }) => navigate(`/practice/looks/${id}`))
  if (!practice.data) {
    const problem = practice.error
    return (
      <>
        <Waiting problem={problem?.message} />
        {/* A file that cannot be read is the learner's to delete, and nothing of the house. */}
        {problem instanceof Problem && problem.status === 409 && <Forget />}
      </>
    )
  }
  const { decks, sessions, seasons, judged } = practice.data
  const start = (deck: string) => begin.mutate({ deck, eggs: EGGS, seed: seed.trim() || null })
  return (
    <Stack gap={10} maxWidth="72rem">
      <Box>
        <Title>Practice</Title>
        <Text mt={2} fontSize="lead" maxWidth="44em">
          Judge eggs that cannot die. Each is simulated: look at it, hold the torch, say what you
          make of it, then its truth is told. Nothing here is recorded in the house.
        </Text>
      </Box>
      <section aria-labelledby="decks">
        <Heading id="decks">Look and judge</Heading>
        {begin.error && (
          <Text role="alert" color="vessel" fontWeight="semibold" mb={3}>
            {begin.error.detail}
          </Text>
        )}
        <chakra.ul>
          {decks.map(({ deck, due, unseen, kinds }) => (
            <chakra.li
              key={deck}
              display="flex"
              flexWrap="wrap"
              alignItems="center"
              columnGap={5}
              rowGap={2}
              py={3}
              borderTop="1.5px solid"
              borderColor="line"
            >
              <Span flex="1 1 18rem">
                <Span display="block" fontWeight="bold" fontSize="lead">
                  {deckName(deck)}
                </Span>
                <Span color="soft">{DECKS[deck]?.about}</Span>
              </Span>
              <Span color="soft" minWidth="9rem">
                {stateOf(due, unseen, kinds)}
              </Span>
              <Button
                type="button"
                variant={deck === decks[0]?.deck && judged === 0 ? 'act' : 'plain'}
                disabled={begin.isPending}
                aria-label={`${EGGS} eggs of ${deckName(deck)}`}
                onClick={() => start(deck)}
              >
                {EGGS} eggs
              </Button>
            </chakra.li>
          ))}
        </chakra.ul>
        <Flex as="label" align="center" gap={3} mt={3} wrap="wrap">
          <Span>The same eggs as somebody else: seed</Span>
          <Input
            inputMode="numeric"
            value={seed}
            placeholder="4711"
            width="8rem"
            onChange={(event) => setSeed(event.target.value)}
          />
        </Flex>
      </section>
      <SeasonBegin seasons={seasons} />
      {sessions.length > 0 && (
        <section aria-labelledby="begun">
          <Heading id="begun">Begun</Heading>
          <ul>
            {sessions.map((session) => (
              <chakra.li key={session.id} py={2} borderTop="1px solid" borderColor="line">
                <Link to={`/practice/looks/${session.id}`}>
                  <Span textDecoration="underline" fontWeight="semibold">
                    {deckName(session.deck)}
                  </Span>
                </Link>
                <Span color="soft">
                  , {session.done} of {session.eggs} judged, begun {day(session.began_at)}
                </Span>
              </chakra.li>
            ))}
          </ul>
        </section>
      )}
      {judged > 0 && <Doing decks={decks.map(({ deck }) => deck)} />}
      {(judged > 0 || sessions.length > 0 || seasons.length > 0) && <Yours judged={judged} />}
    </Stack>
  )
}

function stateOf(due: number, unseen: number, kinds: number): string {
  if (due > 0) return `${counted(due, 'kind')} to see again`
  if (unseen === kinds) return 'new'
  return unseen > 0 ? `${unseen} of ${kinds} kinds new` : 'nothing due today'
}

/** What a learner did is the learner's: taken along, or forgotten. */
function Yours({ judged }: { judged: number }) {
  return (
    <section aria-labelledby="yours">
      <Heading id="yours">What is kept</Heading>
      <Text mb={2}>
        {counted(judged, 'egg')} you judged, in a file of your own. No one else sees how you did.
      </Text>
      <Flex gap={3} wrap="wrap" align="center">
        <Button asChild size="small">
          <a href={under('/api/practice/export')}>Export</a>
        </Button>
        <Forget />
      </Flex>
    </section>
  )
}

/** Deletes what a person practised, once it was said twice: it cannot be undone. */
function Forget() {
  const [asked, setAsked] = useState(false)
  const forget = useForget(() => setAsked(false))
  if (!asked) {
    return (
      <Button type="button" size="small" variant="bare" onClick={() => setAsked(true)}>
        Delete my practice
      </Button>
    )
  }
  return (
    <>
      <Button
        type="button"
        size="small"
        disabled={forget.isPending}
        onClick={() => forget.mutate()}
      >
        Delete all of my practice
      </Button>
      <Button type="button" size="small" variant="bare" onClick={() => setAsked(false)}>
        Keep it
      </Button>
      <Span color="soft">This cannot be undone.</Span>
    </>
  )
}
