import { chakra, Grid, Strong, Text } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { Choices } from '@/shared/ui/Choices'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'
import { type Egg, happened, withEvent } from '../steps'
import { HandledWhen } from './HandledWhen'

type Mishap = Schemas['EggEvent']

const MISHAPS: { kind: Mishap; label: string }[] = [
  { kind: 'torn', label: 'torn' },
  { kind: 'dropped', label: 'dropped' },
  { kind: 'supported', label: 'supported' },
]

/** Whether the clump was kept, and what happened to an egg on the way. */
export function Handling({ day, step, back, change, next }: StepProps) {
  const { eggs, method } = day.state
  const stuck = (egg: Egg) => egg.clump != null
  const separated = eggs.some((egg) => happened(egg, 'separated'))
  const noted = separated || eggs.some((egg) => MISHAPS.some(({ kind }) => happened(egg, kind)))
  const now = () => new Date().toISOString()
  const mark = (number: number, kind: Mishap, on: boolean) =>
    change({ eggs: eggs.map((e, i) => (i === number - 1 ? withEvent(e, kind, on, now()) : e)) })
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      nextLabel={noted ? 'Noted, next' : 'Nothing happened, next'}
      onSubmit={(event) => {
        event.preventDefault()
        next()
      }}
    >
      <HandledWhen day={day} change={change} />
      {eggs.some(stuck) && (
        <Choices
          legend="The eggs that stick together"
          columns={{ base: 1, md: 2 }}
          choices={[
            {
              value: 'kept',
              label: 'Kept as a clump',
              note: 'no rolling, less surface to dry; an egg cannot be taken out later',
            },
            {
              value: 'separated',
              label: 'Separated',
              note: 'only while fresh, slowly; dry ones tear',
            },
          ]}
          value={separated ? 'separated' : 'kept'}
          onChoose={(choice) =>
            change({
              eggs: eggs.map((egg) =>
                stuck(egg) ? withEvent(egg, 'separated', choice === 'separated', now()) : egg,
              ),
            })
          }
        />
      )}
      {eggs.some(stuck) && (
        <Text color="soft" fontSize="small" mt={-2}>
          Your method: {method.clump}.
        </Text>
      )}
      <chakra.fieldset>
        <chakra.legend fontWeight="semibold" mb={2}>
          Did anything happen to one?
        </chakra.legend>
        {eggs.map((egg, i) => {
          if (egg.slug) return null
          const number = i + 1
          return (
            <Grid
              key={number}
              templateColumns="4.5rem repeat(3, 1fr)"
              gap={2}
              alignItems="center"
              py={1}
              borderBottom="1px solid"
              borderColor="line"
            >
              <Strong fontSize="lead">Egg {number}</Strong>
              {MISHAPS.map((mishap) => (
                <MishapSwitch
                  key={mishap.kind}
                  egg={number}
                  mishap={mishap}
                  on={happened(egg, mishap.kind)}
                  onSwitch={(on) => mark(number, mishap.kind, on)}
                />
              ))}
            </Grid>
          )
        })}
      </chakra.fieldset>
      <Text color="soft" fontSize="small">
        An egg that sags high on a clump is supported with a small stack of grid. A torn shell
        weeps: it stays in, and is watched.
      </Text>
    </StepFrame>
  )
}

type SwitchProps = {
  egg: number
  mishap: (typeof MISHAPS)[number]
  on: boolean
  onSwitch: (on: boolean) => void
}

/** A mishap of one egg: written plainly while it did not happen, framed once it did. */
function MishapSwitch({ egg, mishap, on, onSwitch }: SwitchProps) {
  const harmed = mishap.kind !== 'supported'
  return (
    <chakra.button
      type="button"
      aria-pressed={on}
      aria-label={`Egg ${egg} ${mishap.label}`}
      onClick={() => onSwitch(!on)}
      minHeight="thumb"
      borderRadius="small"
      border="2px solid"
      borderColor="transparent"
      color="soft"
      fontWeight="medium"
      cursor="pointer"
      _hover={{ bg: 'faint' }}
      _pressed={{
        borderColor: harmed ? 'vessel' : 'ink',
        bg: 'sheet',
        color: 'ink',
        fontWeight: 'bold',
      }}
    >
      {mishap.label}
    </chakra.button>
  )
}
