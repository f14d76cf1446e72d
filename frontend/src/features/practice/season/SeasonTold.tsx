import { Box, chakra, Flex, Grid, Span, Stack, Text } from '@chakra-ui/react'
import { useNavigate } from 'react-router'
import { counted } from '@/shared/counted'
import { Button } from '@/shared/ui/Button'
import { Fetching, Heading } from '@/shared/ui/page'
import { type KeptSeason, type Telling, useBeginSeason, useTelling } from '../queries'
import { choiceWords, worthWords } from './words'

/** A season that is over: what was hidden, what choices were worth, what to learn. */
export function SeasonTold({ season }: { season: KeptSeason }) {
  const telling = useTelling(season.id, season.over)
  const navigate = useNavigate()
  const begin = useBeginSeason(({ id }) => navigate(`/practice/seasons/${id}`))
  const told = telling.data
  if (!told && telling.error) return <Fetching problem={telling.error.message} />
  if (!told) {
    return (
      <Text role="status" color="soft" py={6}>
        The season is being told. Each of your choices is left out once, and it is lived through
        again.
      </Text>
    )
  }
  return (
    <Stack gap={8}>
      <Text fontSize="large">
        {told.own.hatched} of {counted(told.eggs - told.blanks, 'egg')} hatched.{' '}
        {told.blanks > 0 && `${counted(told.blanks, 'slug')} lay among them. `}
        It is a simulation: which school loses what here need not be so in your room.
      </Text>
      <Lessons told={told} />
      <Grid
        templateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) minmax(0, 1fr)' }}
        columnGap={10}
        rowGap={8}
      >
        <Others told={told} />
        <Stack gap={8}>
          <Hidden told={told} />
          <Choices told={told} />
        </Stack>
      </Grid>
      <Flex gap={3} wrap="wrap">
        <Button
          type="button"
          variant="act"
          disabled={begin.isPending}
          onClick={() =>
            begin.mutate({
              seed: String(season.seed),
              boxes: season.boxes.length,
              difficulty: season.difficulty,
              school: season.school,
            })
          }
        >
          The same season again
        </Button>
        <Span alignSelf="center" color="soft">
          or let somebody try seed {season.seed}
        </Span>
      </Flex>
    </Stack>
  )
}

function Lessons({ told }: { told: Telling }) {
  return (
    <section aria-labelledby="lessons">
      <Heading id="lessons">What to learn</Heading>
      {told.lessons.length === 0 && <p>Nothing was lost that could have been kept.</p>}
      <ol>
        {told.lessons.map(({ of, eggs, text, rule }) => (
          <chakra.li key={of} py={3} borderTop="1.5px solid" borderColor="line">
            <Span fontSize="lead">
              <strong>
                {counted(eggs, 'egg')} lost to {of}.
              </strong>{' '}
              {text}
            </Span>{' '}
            <Span color="soft">Rule {rule}</Span>
          </chakra.li>
        ))}
      </ol>
    </section>
  )
}

/** The same season by other keepers, as bars. */
function Others({ told }: { told: Telling }) {
  const all = [told.own, ...told.others].sort((a, b) => a.hatched - b.hatched)
  const most = told.eggs - told.blanks
  return (
    <section aria-labelledby="others">
      <Heading id="others">The same season, kept by others</Heading>
      <ul>
        {all.map(({ who, hatched, lost, causes }) => (
          <chakra.li key={who} py={2} borderTop="1px solid" borderColor="line">
            <Flex justify="space-between" gap={3} fontWeight={who === 'you' ? 'heavy' : 'medium'}>
              <span>{who === 'you' ? 'You' : who}</span>
              <span>
                {hatched} hatched, {lost} lost
              </span>
            </Flex>
            <Box height="8px" bg="faint" borderRadius="small" mt={1} aria-hidden>
              <Box
                height="100%"
                borderRadius="small"
                bg={who === 'you' ? 'yolk' : 'sound'}
                style={{ width: `${(100 * hatched) / most}%` }}
              />
            </Box>
            {causes.length > 0 && (
              <Text color="soft" fontSize="small" mt={1}>
                lost to {causes.map(({ of, eggs }) => `${of} ${eggs}`).join(', ')}
              </Text>
            )}
          </chakra.li>
        ))}
      </ul>
    </section>
  )
}

function Hidden({ told }: { told: Telling }) {
  return (
    <section aria-labelledby="hidden">
      <Heading id="hidden">What was hidden</Heading>
      {told.hidden.length === 0 && <p>Nothing befell this season.</p>}
      <ul>
        {told.hidden.map(({ day, box, text }) => (
          <chakra.li key={`${day} ${text}`} py={1} borderTop="1px solid" borderColor="line">
            <Span color="soft">Day {day}</Span> {box && <strong>{box}: </strong>}
            {text}.
          </chakra.li>
        ))}
      </ul>
    </section>
  )
}

function Choices({ told }: { told: Telling }) {
  return (
    <section aria-labelledby="choices">
      <Heading id="choices">What your choices were worth</Heading>
      {told.choices.length === 0 && <p>You left everything alone.</p>}
      <ul>
        {told.choices.map(({ what, box, times, worth }) => (
          <chakra.li
            key={`${what} ${box}`}
            display="flex"
            justifyContent="space-between"
            gap={3}
            py={1}
            borderTop="1px solid"
            borderColor="line"
          >
            <span>{choiceWords(what, box, times)}</span>
            <Span fontWeight="semibold" color={worth < 0 ? 'vessel' : undefined} textAlign="end">
              {worthWords(worth)}
            </Span>
          </chakra.li>
        ))}
      </ul>
    </section>
  )
}
