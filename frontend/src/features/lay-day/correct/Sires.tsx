import { Box, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct, useAnimals } from '@/shared/api/queries'
import { toggled } from '@/shared/toggled'
import { Button } from '@/shared/ui/Button'
import { Chips } from '@/shared/ui/Chips'
import { Heading } from '@/shared/ui/page'

/** "One of these sires" as a fact: later what hatches tells them apart. */
export function Sires({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const sires = (useAnimals().data ?? []).filter((animal) => animal.role === 'sire')
  const [on, setOn] = useState(() => known(clutch))
  const say = useAct(
    (body: Schemas['SiresRequest']) =>
      answer(
        api.PUT('/api/clutches/{code}/sires', {
          params: { path: { code: clutch.code } },
          body,
        }),
      ),
    (act) => act,
  )
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
          disabled={say.isPending}
          onClick={() => say.mutate({ sires: on.map(Number) })}
        >
          {on.length > 1 ? `Record one of ${on.length}` : 'Record the sire'}
        </Button>
      </Box>
    </section>
  )
}

function known({ possible_sires, sire_id }: Schemas['ClutchResponse']): string[] {
  if (possible_sires.length > 0) return possible_sires.map(({ id }) => String(id))
  return sire_id === null ? [] : [String(sire_id)]
}
