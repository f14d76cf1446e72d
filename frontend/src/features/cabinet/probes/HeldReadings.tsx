import { HStack, Text } from '@chakra-ui/react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { counted } from '@/shared/counted'
import { dayAndTime } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { useHeld } from '../queries'

type Held = Schemas['HeldResponse']

/** Readings whose time cannot be: what is held back, and the two ways on. */
export function HeldReadings({ probes }: { probes: Schemas['HungProbeResponse'][] }) {
  const held = useHeld()
  const own = held.data?.filter((h) => probes.some((probe) => probe.id === h.probe)) ?? []
  if (own.length === 0) return null
  return (
    <section aria-label="Readings held back">
      {own.map((h) => (
        <HeldLine key={`${h.probe}-${h.reason}`} held={h} />
      ))}
    </section>
  )
}

function HeldLine({ held }: { held: Held }) {
  const ask = { probe: held.probe, reason: held.reason }
  const letIn = useAct(
    () =>
      answer(api.POST('/api/held-readings/let-in', { body: { ...ask, shift_s: held.shift_s } })),
    (act) => act,
  )
  const setAside = useAct(
    () => answer(api.POST('/api/held-readings/set-aside', { body: ask })),
    (act) => act,
  )
  return (
    <HStack borderStart="6px solid" borderColor="soft" ps={4} py={1} wrap="wrap" gap={3}>
      <Text flex="1 1 20rem">
        <strong>{held.probe_name}:</strong> {counted(held.count, 'reading')} from{' '}
        {dayAndTime(held.first_at)} to {dayAndTime(held.last_at)} {held.count === 1 ? 'is' : 'are'}{' '}
        held back. {because(held)}
      </Text>
      <Button type="button" size="small" disabled={letIn.isPending} onClick={() => letIn.mutate()}>
        {held.reason === 'before'
          ? 'It hung there by then: let in'
          : `Move by ${inWords(held.shift_s)} and let in`}
      </Button>
      <Button
        type="button"
        size="small"
        variant="bare"
        disabled={setAside.isPending}
        onClick={() => setAside.mutate()}
      >
        Discard
      </Button>
    </HStack>
  )
}

function because(held: Held): string {
  switch (held.reason) {
    case 'ahead':
      return 'Its clock is ahead: set it right.'
    case 'behind':
      return 'Its clock is behind: set it right.'
    case 'before':
      return 'By the record the probe did not hang there yet.'
  }
}

/** "-3 h", "+9000 days" */
export function inWords(seconds: number): string {
  const sign = seconds < 0 ? '−' : '+'
  const size = Math.abs(seconds)
  if (size < 5400) return `${sign}${Math.round(size / 60)} min`
  if (size < 172_800) return `${sign}${(size / 3600).toFixed(1).replace(/\.0$/, '')} h`
  return `${sign}${Math.round(size / 86_400)} days`
}
