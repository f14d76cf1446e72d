import { Box, Grid, HStack, Stack, Text } from '@chakra-ui/react'
import { useFieldArray, useFormContext } from 'react-hook-form'
import { useRules } from '@/shared/api/queries'
import { nextBoxName } from '@/shared/eggNames'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { checkGrams } from '@/shared/units'
import { type Egg, type LayDay, oneBoxLess, spread } from '../steps'
import { SplitEggs } from './SplitEggs'

/** A further box as typed; what is empty is as in the first. */
export type FurtherBox = {
  medium: string
  closing: string
  dry: string
  water: string
  setUp: string
}

const EMPTY: FurtherBox = { medium: '', closing: '', dry: '', water: '', setUp: '' }

/** Further boxes for some of the eggs: half on perlite, half on vermiculite. */
export function MoreBoxes({
  day,
  eggs,
  media,
  closings,
  most,
  onEggs,
}: {
  day: LayDay
  eggs: Egg[]
  media: string[]
  closings: string[]
  most: number
  onEggs: (eggs: Egg[]) => void
}) {
  const form = useFormContext<{ further: FurtherBox[] }>()
  const { fields, append, remove } = useFieldArray({ control: form.control, name: 'further' })
  const ranges = useRules().data?.grams
  const names = namesOf(day, fields.length)
  if (eggs.length < 2) return null
  const add = () => {
    append(EMPTY, { shouldFocus: false })
    onEggs(spread(eggs, fields.length + 2))
  }
  const asFirst = { value: '', label: 'as in the first' }
  return (
    <Stack gap={4}>
      {fields.map((field, at) => (
        <Box key={field.id} role="group" aria-label={`Box ${names[at + 1]}`}>
          <HStack justify="space-between" mb={2}>
            <Text fontWeight="bold">Box {names[at + 1]}</Text>
            <Button
              type="button"
              size="small"
              variant="bare"
              onClick={() => {
                remove(at)
                onEggs(oneBoxLess(eggs, at + 1))
              }}
            >
              Not this box
            </Button>
          </HStack>
          <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap={4}>
            <SelectField
              name={`further.${at}.medium`}
              label="Medium"
              options={[asFirst, ...media.map((medium) => ({ value: medium, label: medium }))]}
            />
            <SelectField
              name={`further.${at}.closing`}
              label="Closing"
              options={[asFirst, ...closings.map((way) => ({ value: way, label: way }))]}
            />
          </Grid>
          <Grid templateColumns="1fr 1fr 1fr" gap={3}>
            <TextField
              name={`further.${at}.dry`}
              label="Dry, g"
              inputMode="decimal"
              check={(text) => checkGrams(text, ranges?.medium_g)}
            />
            <TextField
              name={`further.${at}.water`}
              label="Water, g"
              inputMode="decimal"
              check={(text) => checkGrams(text, ranges?.water_g)}
            />
            <TextField
              name={`further.${at}.setUp`}
              label="Whole box, g"
              inputMode="decimal"
              check={(text) => checkGrams(text, ranges?.box_g)}
            />
          </Grid>
        </Box>
      ))}
      {fields.length > 0 && <SplitEggs names={names} eggs={eggs} onChange={onEggs} />}
      {fields.length < most && (
        <Button type="button" alignSelf="start" onClick={add}>
          {fields.length === 0 ? 'Split over two boxes' : 'One more box'}
        </Button>
      )}
    </Stack>
  )
}

/** What the boxes will be called, the first one too. */
function namesOf(day: LayDay, further: number): string[] {
  const names = [day.state.into || day.state.code || day.next_code]
  const base = day.state.code || day.next_code
  for (let n = 0; n < further; n += 1) names.push(nextBoxName(base, names))
  return names
}
