import { Box, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAnimals } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { toggled } from '@/shared/toggled'
import { Button } from '@/shared/ui/Button'
import { Chips } from '@/shared/ui/Chips'
import { Heading } from '@/shared/ui/page'
import { showProblem } from '@/shared/ui/toasts'

/** "One of these sires" as a fact: later what hatches tells them apart. */
export function Sires({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const sires = (useAnimals().data ?? []).filter((animal) => animal.role === 'sire')
  const [on, setOn] = useState(() => known(clutch))
  const navigate = useNavigate()
  const correction = useCorrection({
    revision: clutch.sires_revision,
    opened: { sires: known(clutch).map(Number) },
    send: (body: Schemas['SiresRequest'], header) =>
      answer(
        api.PUT('/api/clutches/{code}/sires', {
          params: { path: { code: clutch.code }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone: () => navigate(`/clutches/${clutch.code}`),
  })
  if (sires.length < 2) return null
  return (
    <section aria-labelledby="sires">
      <Heading id="sires">One of several sires</Heading>
      <Text color="soft" mb={3} maxWidth="40rem">
        Was she with more than one? Tap all it can have been. What hatches tells them apart, as far
        as they carry different traits.
      </Text>
      <Chips
        legend="It is of"
        chips={sires.map(({ id, name }) => ({ value: String(id), label: name }))}
        on={on}
        onToggle={(sire) => setOn(toggled(on, sire))}
      />
      <Box mt={4}>
        <Button
          type="button"
          disabled={correction.pending}
          onClick={() =>
            correction.save({ sires: on.map(Number) }, (problem) => showProblem(problem.detail))
          }
        >
          {on.length > 1 ? `Record one of ${on.length}` : 'Record the sire'}
        </Button>
      </Box>
      <BothVersions
        correction={correction}
        labels={{ sires: 'It is of' }}
        say={(_, value) =>
          Array.isArray(value)
            ? value.map((id) => sires.find((sire) => sire.id === id)?.name).join(', ') ||
              'not known'
            : undefined
        }
      />
    </section>
  )
}

function known({ possible_sires, sire_id }: Schemas['ClutchResponse']): string[] {
  if (possible_sires.length > 0) return possible_sires.map(({ id }) => String(id))
  return sire_id === null ? [] : [String(sire_id)]
}
