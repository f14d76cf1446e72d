import { Box, Flex, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { toggled } from '@/shared/toggled'
import { Button } from '@/shared/ui/Button'
import { Chips } from '@/shared/ui/Chips'
import type { HatchingClutch } from './queries'

/** Several eggs that pipped, or are out, found together: all of them, less those tapped off. */
export function SeveralAtOnce({
  clutch,
  seenAt,
}: {
  clutch: HatchingClutch
  seenAt: string | null
}) {
  const waiting = clutch.eggs.filter(({ egg, fate }) => !egg.slug && !egg.emerged_at && !fate)
  const [open, setOpen] = useState(false)
  const [left, setLeft] = useState<string[]>([])
  const see = useAct(
    (body: Schemas['SeveralRequest']) =>
      answer(
        api.POST('/api/clutches/{code}/seen-hatching', {
          params: { path: { code: clutch.code } },
          body,
        }),
      ),
    (act) => act,
  )
  if (waiting.length < 2) return null
  if (!open) {
    return (
      <Button type="button" size="small" mt={3} mb={4} onClick={() => setOpen(true)}>
        All at once
      </Button>
    )
  }
  const chosen = waiting.filter(({ egg }) => !left.includes(String(egg.number)))
  const closed = chosen.filter(({ egg }) => !egg.pipped_at)
  const record = (eggs: typeof waiting, out: boolean) =>
    see.mutate(
      { eggs: eggs.map(({ egg }) => egg.number), out, at: seenAt },
      {
        onSuccess: () => {
          setOpen(false)
          setLeft([])
        },
      },
    )
  return (
    <Box mt={3} mb={5} role="group" aria-label="All at once" maxWidth="40rem">
      <Chips
        legend="All eggs but those you tap off"
        chips={waiting.map(({ egg }) => ({
          value: String(egg.number),
          label: `Egg ${egg.number}`,
        }))}
        on={chosen.map(({ egg }) => String(egg.number))}
        onToggle={(egg) => setLeft(toggled(left, egg))}
      />
      <Flex gap={3} mt={3} wrap="wrap">
        <Button
          type="button"
          variant="act"
          disabled={chosen.length === 0 || see.isPending}
          onClick={() => record(chosen, true)}
        >
          {chosen.length === waiting.length ? 'All' : chosen.length} out
        </Button>
        {closed.length > 0 && (
          <Button type="button" disabled={see.isPending} onClick={() => record(closed, false)}>
            {closed.length === waiting.length ? 'All' : closed.length} pipped
          </Button>
        )}
        <Button type="button" variant="bare" onClick={() => setOpen(false)}>
          Leave it
        </Button>
      </Flex>
      <Text color="soft" fontSize="small" mt={2}>
        A pip nobody saw is taken as a usual while before.
      </Text>
    </Box>
  )
}
