import { chakra, Flex, Input, Span, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schemas } from '@/shared/api/client'
import { day } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Choices } from '@/shared/ui/Choices'
import { Heading } from '@/shared/ui/page'
import { useBeginSeason } from '../queries'
import { DIFFICULTIES, type Difficulty, SCHOOLS, type School } from './words'

/** Boxes of a season, to choose from. */
const BOXES = ['3', '4', '6', '8'] as const

/** Begin to keep a season, or go on with one. */
export function SeasonBegin({ seasons }: { seasons: Schemas['SeasonListedResponse'][] }) {
  const [boxes, setBoxes] = useState<(typeof BOXES)[number]>('4')
  const [difficulty, setDifficulty] = useState<Difficulty>('usual')
  const [school, setSchool] = useState<School>('')
  const [seed, setSeed] = useState('')
  const navigate = useNavigate()
  const begin = useBeginSeason(({ id }) => navigate(`/practice/seasons/${id}`))
  return (
    <section aria-labelledby="season">
      <Heading id="season">Keep a season</Heading>
      <Text mb={3} maxWidth="44em">
        A cabinet of boxes over sixty days, in about a quarter of an hour. Each day you choose what
        to open, look at, add or leave alone; then it is told what was hidden, and what your choices
        were worth.
      </Text>
      {begin.error && (
        <Text role="alert" color="vessel" fontWeight="semibold" mb={3}>
          {begin.error.detail}
        </Text>
      )}
      <Flex gap={6} wrap="wrap" align="flex-end">
        <chakra.div flex="1 1 18rem">
          <Choices
            legend="Boxes"
            choices={BOXES.map((value) => ({ value, label: value }))}
            value={boxes}
            onChoose={setBoxes}
          />
        </chakra.div>
        <chakra.div flex="1 1 24rem">
          <Choices
            legend="How much goes wrong"
            choices={DIFFICULTIES}
            value={difficulty}
            onChoose={setDifficulty}
          />
        </chakra.div>
        <chakra.div flex="1 1 30rem">
          <Choices
            legend="Visits by the school of"
            choices={SCHOOLS}
            value={school}
            onChoose={setSchool}
            columns={{ base: 2, md: 4 }}
          />
        </chakra.div>
      </Flex>
      <Flex gap={4} wrap="wrap" align="center" mt={4}>
        <Button
          type="button"
          disabled={begin.isPending}
          onClick={() =>
            begin.mutate({
              boxes: Number(boxes),
              difficulty,
              school: school || null,
              seed: seed.trim() || null,
            })
          }
        >
          Begin the season
        </Button>
        <Flex as="label" align="center" gap={3}>
          <Span>The season of seed</Span>
          <Input
            inputMode="numeric"
            value={seed}
            placeholder="4711"
            width="8rem"
            onChange={(event) => setSeed(event.target.value)}
          />
        </Flex>
      </Flex>
      {seasons.length > 0 && (
        <chakra.ul mt={4}>
          {seasons.map((one) => (
            <chakra.li key={one.id} py={2} borderTop="1px solid" borderColor="line">
              <Link to={`/practice/seasons/${one.id}`}>
                <Span textDecoration="underline" fontWeight="semibold">
                  Season {one.seed}
                </Span>
              </Link>
              <Span color="soft">
                , {one.boxes} boxes, {one.difficulty}, {one.over ? 'over' : `on day ${one.day}`},
                begun {day(one.began_at)}
              </Span>
            </chakra.li>
          ))}
        </chakra.ul>
      )}
    </section>
  )
}
