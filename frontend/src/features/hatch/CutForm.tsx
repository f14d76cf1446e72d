import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { Choices } from '@/shared/ui/Choices'
import { Tick } from '@/shared/ui/Tick'

const REASONS = [
  'rescue, siblings are out',
  'my method cuts now',
  'slit closed over fluid',
  'other',
]

/** An egg was cut: why, and whether it bled. The cautions come first. */
export function CutForm({
  code,
  number,
  seenAt,
  onDone,
}: {
  code: string
  number: number
  seenAt: string | null
  onDone: () => void
}) {
  const [reason, setReason] = useState<string | null>(null)
  const [bled, setBled] = useState(false)
  const cut = useAct(
    (why: string) =>
      answer(
        api.POST('/api/clutches/{code}/eggs/{number}/cut', {
          params: { path: { code, number } },
          body: { reason: why, bled, at: seenAt },
        }),
      ),
    (act) => act,
  )
  return (
    <Box bg="sheet" borderRadius="small" p={4}>
      <Caution moment="blades" />
      <Caution moment="at the pip" />
      <Choices
        legend={`Why was egg ${number} cut?`}
        columns={{ base: 2, md: 4 }}
        choices={REASONS.map((value) => ({ value, label: value }))}
        value={reason}
        onChoose={setReason}
      />
      <Tick label="It bled" checked={bled} onChange={setBled} />
      <Button
        type="button"
        disabled={reason === null || cut.isPending}
        onClick={() => reason && cut.mutate(reason, { onSuccess: onDone })}
      >
        Record the cut
      </Button>
    </Box>
  )
}
