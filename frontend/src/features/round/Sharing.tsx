import { Box, Flex, Span, Strong } from '@chakra-ui/react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import type { Share } from './shares'

/** Who opens which cabinet, where several people make the round together. */
export function Sharing({ cabinets, shares }: { cabinets: string[]; shares: Share[] }) {
  const say = useAct(
    (body: Schemas['ShareRequest']) => answer(api.POST('/api/round/shares', { body })),
    () => null,
  )
  return (
    <Box as="section" aria-label="Who opens what">
      <Flex wrap="wrap" columnGap={6} rowGap={2}>
        {cabinets.map((cabinet) => {
          const share = shares.find((one) => one.cabinet === cabinet)
          return (
            <Flex key={cabinet} align="center" gap={2}>
              <Strong>{cabinet}</Strong>
              <Span color="soft">{share ? (share.mine ? 'you' : share.name) : 'anybody'}</Span>
              <Button
                size="small"
                aria-label={share?.mine ? `Leave ${cabinet} to anybody` : `Take ${cabinet}`}
                disabled={say.isPending}
                onClick={() => say.mutate({ cabinet, mine: !share?.mine })}
              >
                {share?.mine ? 'Leave it' : 'Take it'}
              </Button>
            </Flex>
          )
        })}
      </Flex>
    </Box>
  )
}
