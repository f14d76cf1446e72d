import { Box, chakra, Flex, Span, Stack, Text } from '@chakra-ui/react'
import { Notice } from '@/shared/ui/page'
import type { Told } from '../queries'
import { actWords, chanceTold } from './words'

/** What was true of an egg, what came of the learner's choice, and what Sandboa would have said. */
export function Truth({ told }: { told: Told }) {
  const { judged, opinion } = told
  const [first] = opinion.advice
  return (
    <Stack gap={5} aria-live="polite">
      <Notice urgent={!told.alive} label={told.alive ? 'It was alive.' : 'It was dead.'}>
        {told.truth}
      </Notice>
      <Text fontSize="lead">{chanceTold(told)}</Text>
      <Stack gap={1}>
        <Text>
          <strong>You chose to {actWords(judged.act)}.</strong> {told.came}
        </Text>
        <Text color={judged.usual === told.usual ? undefined : 'vessel'}>
          {told.usual ? 'It was as it should be at its stage' : 'It was not as it should be'}
          {judged.usual === told.usual ? ', as you said.' : '; you said otherwise.'}
        </Text>
      </Stack>
      {first && (
        <Text>
          <strong>Sandboa: {actWords(first.act)}.</strong> {first.text}
        </Text>
      )}
      <Evidence told={told} />
    </Stack>
  )
}

/** What each sign was worth: towards alive to the right, towards dead to the left. */
function Evidence({ told: { opinion } }: { told: Told }) {
  const counted = opinion.evidence.filter(({ push }) => Math.abs(push) >= 0.05)
  const silent = opinion.evidence.filter(({ push, void: why }) => Math.abs(push) < 0.05 && why)
  const most = Math.max(...counted.map(({ push }) => Math.abs(push)), 1)
  return (
    <section aria-label="What the signs were worth">
      <chakra.h3 fontWeight="bold" mb={1}>
        What the signs were worth
      </chakra.h3>
      <ul>
        {counted.map(({ words, push }) => (
          <Flex
            as="li"
            key={words}
            align="center"
            gap={3}
            py={1}
            borderTop="1px solid"
            borderColor="line"
          >
            <Span flex="1 1 50%">{words}</Span>
            <Box
              flex="0 0 40%"
              position="relative"
              height="12px"
              bg="faint"
              borderRadius="small"
              aria-hidden
            >
              <Box
                position="absolute"
                top={0}
                bottom={0}
                bg={push < 0 ? 'vessel' : 'sound'}
                borderRadius="small"
                style={barOf(push / most)}
              />
            </Box>
            <Span srOnly>{push < 0 ? 'speaks against it' : 'speaks for it'}</Span>
          </Flex>
        ))}
      </ul>
      <Text color="soft" fontSize="small" mt={1}>
        Left speaks against it, right for it.
        {silent.length > 0 &&
          ` Not counted: ${silent.map(({ words, void: why }) => `${words} (${why})`).join('; ')}.`}
      </Text>
    </section>
  )
}

/** From the middle to where it pushes, in per cent of the bar's place. */
function barOf(push: number) {
  const width = `${50 * Math.abs(push)}%`
  return push < 0 ? { right: '50%', width } : { left: '50%', width }
}
