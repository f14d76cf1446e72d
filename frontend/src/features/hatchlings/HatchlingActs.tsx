import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { LeaveForm } from '@/shared/animals/LeaveForm'
import { TubForm } from '@/shared/animals/TubForm'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { FollowForm } from '@/shared/hatchlings/FollowForm'
import { HatchlingForm } from '@/shared/hatchlings/HatchlingForm'
import type { Hatchling } from '@/shared/hatchlings/queries'
import { takeMoment } from '@/shared/moment/moment'
import { When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { HoldBackForm } from './HoldBackForm'

type Asking = 'meal' | 'weight' | 'tub' | 'hold back' | 'left' | 'correct'

const ACTS: [Asking, string][] = [
  ['meal', 'Meal offered'],
  ['weight', 'Weigh'],
  ['tub', 'Its tub'],
  ['hold back', 'Hold back'],
  ['left', 'It left'],
  ['correct', 'Edit'],
]

/** What is done at a hatchling; of one that left, what was told can only be corrected. */
export function HatchlingActs({ hatchling }: { hatchling: Hatchling }) {
  const [asking, setAsking] = useState<Asking | null>(null)
  const done = () => setAsking(null)
  const here = !hatchling.departure && !hatchling.died
  const mealDue = hatchling.due !== null && hatchling.due.task !== 'shed'
  const acts = here ? ACTS : ACTS.filter(([ask]) => ask === 'correct')
  return (
    <section aria-label="What is done">
      <Flex gap={2} wrap="wrap">
        {acts.map(([ask, label]) => (
          <Button
            key={ask}
            type="button"
            variant={ask === 'meal' && mealDue ? 'act' : undefined}
            aria-expanded={asking === ask}
            onClick={() => setAsking(asking === ask ? null : ask)}
          >
            {label}
          </Button>
        ))}
        {here && <Shed hatchling={hatchling} />}
      </Flex>
      {here && asking === null && (
        <Box mt={2}>
          <When label="Shed seen" />
        </Box>
      )}
      {(asking === 'meal' || asking === 'weight') && (
        <FollowForm hatchling={hatchling} what={asking} onDone={done} />
      )}
      {asking === 'tub' && <TubForm of={{ hatchling: hatchling.id }} onDone={done} />}
      {asking === 'hold back' && <HoldBackForm hatchling={hatchling} onDone={done} />}
      {asking === 'left' && <LeaveForm of={{ hatchling: hatchling.id }} onDone={done} />}
      {asking === 'correct' && (
        <HatchlingForm
          code={hatchling.clutch}
          number={hatchling.egg}
          part={hatchling.part}
          held={hatchling}
          onDone={done}
        />
      )}
    </section>
  )
}

/** A shed, now or at the moment that is held on every page. */
function Shed({ hatchling }: { hatchling: Hatchling }) {
  const shed = useAct(
    () =>
      answer(
        api.POST('/api/hatchlings/{hatchling}/shed', {
          params: { path: { hatchling: hatchling.id } },
          body: { at: takeMoment() },
        }),
      ),
    (act) => act,
  )
  return (
    <Button
      type="button"
      variant={hatchling.due?.task === 'shed' ? 'act' : undefined}
      disabled={shed.isPending}
      onClick={() => shed.mutate()}
    >
      Has shed
    </Button>
  )
}
