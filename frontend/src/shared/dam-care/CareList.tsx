import { chakra } from '@chakra-ui/react'
import { Link } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { day, dayAndTime } from '@/shared/dates'
import { Button } from '@/shared/ui/Button'
import { Notice } from '@/shared/ui/page'

type Dam = Schemas['AfterLayingTold']
type Item = Schemas['CareItemTold']

/** A dam's checklist after laying, her flags, and the way back to weight. */
export function CareList({ dam }: { dam: Dam }) {
  const tick = useAct(
    (task: Item['task']) =>
      answer(
        api.POST('/api/animals/{animal}/aftercare', {
          params: { path: { animal: dam.dam } },
          body: { task },
        }),
      ),
    (act) => act,
  )
  return (
    <div>
      {dam.flags.map((flag) => (
        <chakra.div key={flag} mb={3}>
          <Notice urgent label="Look at her">
            {flag}
          </Notice>
        </chakra.div>
      ))}
      <chakra.ul listStyleType="none">
        {dam.items.map((item) => (
          <chakra.li
            key={`${item.task}-${item.start}`}
            display="flex"
            alignItems="center"
            gap={3}
            minHeight="52px"
            py={1}
            borderBottom="1px solid"
            borderColor="line"
          >
            <chakra.span flex="1" color={item.done_at ? 'soft' : 'ink'}>
              {item.done_at ? <s>{item.text}</s> : item.text}
              <chakra.span color="soft" fontSize="0.9em" display="block">
                {item.done_at ? `done ${dayAndTime(item.done_at)}` : when(item)}
              </chakra.span>
            </chakra.span>
            {!item.done_at &&
              (item.ticked_by_hand ? (
                <Button type="button" size="small" onClick={() => tick.mutate(item.task)}>
                  Done
                </Button>
              ) : (
                <Button asChild size="small">
                  <Link to={`/animals/${dam.dam}`}>
                    {item.task === 'weigh' ? 'Record weight' : 'Record meal'}
                  </Link>
                </Button>
              ))}
          </chakra.li>
        ))}
      </chakra.ul>
      <BackToWeight dam={dam} />
    </div>
  )
}

function when(item: Item): string {
  return item.due ? `due now, by ${day(item.by)}` : `from ${day(item.start)}`
}

/** "1,420 g of 1,850 g; back about 12 Sep (30 Aug to 8 Oct)". */
export function BackToWeight({ dam }: { dam: Dam }) {
  const { recovery } = dam
  const target = `${dam.target_g.toFixed(0)} g`
  const why = dam.before_g === null ? 'your minimum' : 'her weight before pairing'
  if (!recovery) {
    return (
      <chakra.p mt={3} color="soft">
        Target {target} ({why}). No weight since laying yet.
      </chakra.p>
    )
  }
  return (
    <chakra.p mt={3}>
      <strong>{recovery.latest_g.toFixed(0)} g</strong> of {target} ({why}).{' '}
      {recovery.reached
        ? 'Back to weight.'
        : recovery.expected_at
          ? expected(recovery)
          : recovery.gain_g_per_day === null
            ? 'A second weight, a week after the first, gives the date.'
            : 'Not gaining: no date can be told.'}
    </chakra.p>
  )
}

function expected(recovery: Schemas['RecoveryTold']): string {
  const rate = recovery.gain_g_per_day?.toFixed(0)
  const early = recovery.early_at ? day(recovery.early_at) : ''
  const late = recovery.late_at ? day(recovery.late_at) : 'much later'
  return `Back about ${day(recovery.expected_at as string)} (${early} to ${late}), gaining ${rate} g a day.`
}
