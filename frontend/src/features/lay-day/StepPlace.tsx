import { Box, chakra, Flex } from '@chakra-ui/react'
import type { ComponentType } from 'react'
import { Navigate, useNavigate, useParams } from 'react-router'
import { useRules } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { Notice, Waiting } from '@/shared/ui/page'
import {
  AFTER_RECORDING,
  beside,
  STEP_TITLES,
  type State,
  type Step,
  type StepProps,
} from './steps'
import { Aftercare } from './steps/Aftercare'
import { Box as BoxStep } from './steps/Box'
import { Card } from './steps/Card'
import { Count } from './steps/Count'
import { Dam } from './steps/Dam'
import { Eggs } from './steps/Eggs'
import { Handling } from './steps/Handling'
import { Marks } from './steps/Marks'
import { Places } from './steps/Places'
import { Prepare } from './steps/Prepare'
import { Shelf } from './steps/Shelf'
import { Turning } from './steps/Turning'
import { useClashes, useLayDay } from './useLayDay'

const STEPS: Record<Step, ComponentType<StepProps>> = {
  prepare: Prepare,
  dam: Dam,
  marks: Marks,
  count: Count,
  places: Places,
  eggs: Eggs,
  turning: Turning,
  handling: Handling,
  box: BoxStep,
  shelf: Shelf,
  card: Card,
  aftercare: Aftercare,
}

/** One step of a lay day that is under way. */
export function Component() {
  const { id = '', step: asked } = useParams()
  const navigate = useNavigate()
  const { day, problem, change, keep } = useLayDay(Number(id))
  const rules = useRules().data
  if (!day || !rules) return <Waiting problem={problem} />
  if (!asked || !(asked in STEP_TITLES)) {
    // Where it stands becomes an address of its own, so that the back button leads one step back.
    return <Navigate to={`/lay-day/${id}/${day.step}`} replace />
  }
  const step = asked as Step
  const recorded = day.clutch !== null
  if (recorded && !AFTER_RECORDING.includes(step)) {
    return <Navigate to={`/lay-day/${id}/card`} replace />
  }
  if (!recorded && AFTER_RECORDING.includes(step)) {
    return <Navigate to={`/lay-day/${id}/shelf`} replace />
  }
  const next = (changed: Partial<State> = {}) => {
    // The order as the house will tell it once the change is saved.
    const eggs = changed.eggs ?? day.state.eggs
    const maternal = (changed.method ?? day.state.method).dam === 'maternal incubation'
    const toTurn = eggs.some((egg) => !egg.slug && egg.disc && egg.disc !== 'top')
    const order = rules.lay_day_orders.find((o) => o.maternal === maternal && o.to_turn === toTurn)
    const coming = beside(order?.steps ?? day.steps, step, 1)
    if (!coming) return
    if (!recorded) change(changed, coming)
    navigate(`/lay-day/${id}/${coming}`)
  }
  const back = beside(day.steps, step, -1)
  const Shown = STEPS[step]
  return (
    <>
      <Clashes id={day.id} change={(changed) => change(changed, step)} />
      <Shown
        key={step}
        day={day}
        step={step}
        back={recorded && back === 'shelf' ? undefined : back}
        change={(changed) => change(changed, step)}
        keep={(changed) => keep(changed, step)}
        next={next}
      />
    </>
  )
}

/** Where another device said something else meanwhile: what was typed here stands until chosen. */
function Clashes({ id, change }: { id: number; change: (changed: Partial<State>) => void }) {
  const [clashing, seen] = useClashes(id)
  if (!clashing) return null
  const take = () => {
    change(clashing.there)
    seen()
  }
  return (
    <Box role="alert" mb={5} maxWidth="47.5rem">
      <Notice urgent={clashing.clashes.length > 0} label="Another device">
        went on with this lay day meanwhile.{' '}
        {clashing.taken.length > 0 && `It entered ${clashing.taken.join('; ')}. `}
        {clashing.clashes.length > 0 && 'Where both said something, what was entered here stands:'}
        <chakra.ul my={2}>
          {clashing.clashes.map(({ what, here, there }) => (
            <li key={what}>
              {what}: {here} here, {there} there
            </li>
          ))}
        </chakra.ul>
        <Flex gap={3} wrap="wrap">
          <Button type="button" onClick={seen}>
            {clashing.clashes.length > 0 ? 'Keep what is here' : 'Seen'}
          </Button>
          {clashing.clashes.length > 0 && (
            <Button type="button" onClick={take}>
              Take the other's
            </Button>
          )}
        </Flex>
      </Notice>
    </Box>
  )
}
