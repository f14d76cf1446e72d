import { Box, chakra, Grid } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import type { HatchlingLine } from '@/shared/hatchlings/queries'
import { takeMoment } from '@/shared/moment/moment'
import { isOfMoment, When } from '@/shared/moment/When'
import { toggled } from '@/shared/toggled'
import { Chips } from '@/shared/ui/Chips'
import { FormEnd } from '@/shared/ui/FormEnd'
import { TextField } from '@/shared/ui/fields'
import { typedGrams } from '@/shared/units'

/** The same prey offered to several: all that are due, those that refused tapped once. */
export function Feeding({
  code,
  lines,
  onDone,
}: {
  code: string
  lines: HatchlingLine[]
  onDone: () => void
}) {
  const [offered, setOffered] = useState(() => names(hungry(lines)))
  const [refused, setRefused] = useState<string[]>([])
  const form = useForm({ defaultValues: { prey: '', mass: '' } })
  const feed = useAct(
    (body: Schemas['SeveralMealsRequest']) => answer(api.POST('/api/hatchlings/meals', { body })),
    (act) => act,
    (problem) => {
      const field = problem.fields[0]?.field === 'mass_g' ? 'mass' : 'prey'
      if (!isOfMoment(problem)) form.setError(field, { message: problem.detail })
    },
  )
  const given = lines.filter((line) => offered.includes(line.short_name))
  const chip = (line: HatchlingLine) => ({ value: line.short_name, label: line.short_name })
  const send = form.handleSubmit(({ prey, mass }) =>
    feed.mutate(
      {
        meals: given.map((line) => ({
          hatchling: line.id,
          taken: !refused.includes(line.short_name),
        })),
        prey,
        mass_g: mass.trim() ? typedGrams(mass) : null,
        at: takeMoment(),
      },
      { onSuccess: onDone },
    ),
  )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        onSubmit={send}
        aria-label={`Meals of ${code}`}
        maxWidth="40rem"
        display="flex"
        flexDirection="column"
        gap={4}
        mb={5}
      >
        <Chips
          legend="Offered to"
          chips={lines.map(chip)}
          on={offered}
          onToggle={(name) => setOffered(toggled(offered, name))}
        />
        {given.length > 0 && (
          <Chips
            legend="Refused by"
            chips={given.map(chip)}
            on={refused}
            onToggle={(name) => setRefused(toggled(refused, name))}
          />
        )}
        <Grid templateColumns="1fr 1fr" columnGap={4}>
          <TextField name="prey" label="Prey" placeholder="rat pup" />
          <TextField
            name="mass"
            label="Weight of each, g"
            inputMode="decimal"
            check={(text) => !text.trim() || typedGrams(text) > 0 || 'A number, or empty.'}
          />
        </Grid>
        <Box>
          <When label="Offered" problem={feed.error} />
        </Box>
        <FormEnd
          label={`Record ${given.length} ${given.length === 1 ? 'meal' : 'meals'}`}
          disabled={given.length === 0 || feed.isPending}
          onLeave={onDone}
        />
      </chakra.form>
    </FormProvider>
  )
}

/** Those a meal is due of; where none is, those that eat already, else all. */
function hungry(lines: HatchlingLine[]): HatchlingLine[] {
  const due = lines.filter((line) => line.due && line.due.task !== 'shed')
  const eating = lines.filter((line) => line.last_offered_at)
  return [due, eating, lines].find((some) => some.length > 0) ?? []
}

const names = (lines: HatchlingLine[]) => lines.map((line) => line.short_name)
