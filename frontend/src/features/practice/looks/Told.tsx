import { chakra, Flex, Span, Stack, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { Link, useNavigate } from 'react-router'
import { EggDrawing } from '@/eggs/EggDrawing'
import { counted } from '@/shared/counted'
import { Button } from '@/shared/ui/Button'
import { percent } from '@/shared/units'
import { type Look, practiceQuery, useBegin } from '../queries'
import { actWords, lookOf } from './words'

/** A session that is done: each egg in a line, what went well, and the way on. */
export function Told({ look, waiting }: { look: Look; waiting: number }) {
  const told = look.cases.map((egg) => ({
    egg,
    truth: look.told.find((one) => one.egg === egg.egg),
  }))
  const known = look.told
  const wrong = known.filter(({ mistaken }) => mistaken)
  const lost = known.filter(({ worth }) => worth < 0).length
  const saved = known.filter(({ worth }) => worth > 0).length
  const could = known.filter(({ best }) => best > 0).length
  const navigate = useNavigate()
  const begin = useBegin(({ id }) => navigate(`/practice/looks/${id}`))
  const due = useQuery(practiceQuery).data?.decks.find(({ deck }) => deck === look.deck)?.due ?? 0
  return (
    <Stack gap={6}>
      {waiting > 0 && (
        <Text role="status" fontWeight="semibold">
          {counted(waiting, 'truth')} will come when the house answers again.
        </Text>
      )}
      <Text fontSize="large">
        You told {known.length - wrong.length} of {known.length} alive from dead rightly.
        {could > 0 && ` ${saved} of ${could} that could be saved you saved.`}
        {lost > 0 && ` ${counted(lost, 'egg')} would have been lost by what you chose.`}
      </Text>
      <ul>
        {told.map(({ egg, truth }) => (
          <chakra.li
            key={egg.egg}
            display="flex"
            alignItems="center"
            gap={4}
            py={2}
            borderTop="1px solid"
            borderColor="line"
          >
            <EggDrawing egg={lookOf(egg)} size={52} decorative />
            {truth ? (
              <Span flex="1">
                <Span display="block" fontWeight="semibold">
                  Day {egg.day}: {truth.alive ? 'alive' : 'dead'}; you said{' '}
                  {percent(truth.judged.chance_percent / 100)}
                  {wrong.includes(truth) && <Span color="vessel">, wrongly</Span>}
                </Span>
                <Span color="soft">
                  {truth.truth} You chose to {actWords(truth.judged.act)}. {truth.came}
                </Span>
              </Span>
            ) : (
              <Span color="soft">Day {egg.day}: its truth waits.</Span>
            )}
          </chakra.li>
        ))}
      </ul>
      <Flex gap={3} wrap="wrap">
        <Button
          type="button"
          variant="act"
          disabled={begin.isPending}
          onClick={() => begin.mutate({ deck: look.deck, eggs: look.cases.length })}
        >
          {counted(look.cases.length, 'more egg')}
        </Button>
        <Button asChild>
          <Link to="/practice">How I am doing</Link>
        </Button>
      </Flex>
      {due > 0 && <Text color="soft">{counted(due, 'kind')} of egg are to come again today.</Text>}
    </Stack>
  )
}
