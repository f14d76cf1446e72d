import { Box, chakra, Flex, Span, Strong } from '@chakra-ui/react'
import { useState } from 'react'
import { dayAndTime } from '@/shared/dates'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import { NameValues } from './NameValues'
import { type Heard, kindOf, pathWords, type Value, valueWords, worthSaying } from './values'

/** One topic or device: what it said last, which probes it is of, and the way to name it. */
export function Source({ heard }: { heard: Heard }) {
  const [naming, setNaming] = useState(false)
  const stored = kindOf(heard) === 'stored'
  return (
    <chakra.li py={3} borderTop="1px solid" borderColor="line">
      <Flex gap={4} justify="space-between" align="start" wrap="wrap">
        <Box minWidth={0} flex="1 1 16rem">
          <Strong overflowWrap="anywhere">{heard.name}</Strong>
          <Span display="block" color="soft" overflowWrap="anywhere">
            {heard.topic && heard.topic !== heard.name && `${heard.topic}, `}
            {heard.at
              ? `${dayAndTime(heard.at)}, ${heard.count.toLocaleString('en')} since the start`
              : 'has said nothing yet'}
            {heard.kept && ', kept by the broker'}
          </Span>
          <chakra.ul mt={1}>
            {worthSaying(heard).map((value) => (
              <Line key={value.path} value={value} />
            ))}
          </chakra.ul>
          {heard.weakness && (
            <Span display="block" color="vessel" fontWeight="semibold">
              {sentence(heard.weakness)}
            </Span>
          )}
          {heard.refused && (
            <Span display="block" color="vessel" fontWeight="semibold">
              Not taken: {heard.refused}
            </Span>
          )}
        </Box>
        {!naming && (
          <Button
            type="button"
            {...(stored ? { size: 'small' as const } : { variant: 'act' as const })}
            onClick={() => setNaming(true)}
          >
            {stored ? 'Change' : 'Name it'}
          </Button>
        )}
      </Flex>
      {naming && <NameValues heard={heard} onEnd={() => setNaming(false)} />}
    </chakra.li>
  )
}

function Line({ value }: { value: Value }) {
  return (
    <chakra.li overflowWrap="anywhere">
      <Span color="soft">{pathWords(value.path)}</Span> <Strong>{valueWords(value)}</Strong>
      {value.named && <Span> is {value.named.probe_name}</Span>}
    </chakra.li>
  )
}
