import { Grid, Span, Strong } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { TextField } from '@/shared/ui/fields'
import { typedGrams } from '@/shared/units'
import { Result } from './Result'
import { useCalculation } from './useCalculation'

/** What a weighed box has lost, and what to put back. */
export function TopUp() {
  const form = useForm({
    mode: 'onChange',
    defaultValues: { before: '1180', now: '1134', water: '100' },
  })
  const { before, now, water } = form.watch()
  const masses = [typedGrams(before), typedGrams(now), typedGrams(water)] as const
  const asked = masses.some(Number.isNaN)
    ? null
    : { reference_g: masses[0], current_g: masses[1], set_up_water_g: masses[2] }
  const told = useCalculation('top-up', asked, (body: Schemas['TopUpRequest']) =>
    answer(api.POST('/api/bench/top-up', { body })),
  )
  const check = (text: string) => !Number.isNaN(typedGrams(text)) || 'A number.'
  return (
    <FormProvider {...form}>
      <Grid templateColumns="1fr 1fr 1fr" gap={4}>
        <TextField name="before" label="Box at set-up, g" inputMode="decimal" check={check} />
        <TextField name="now" label="Box today, g" inputMode="decimal" check={check} />
        <TextField name="water" label="Water then, g" inputMode="decimal" check={check} />
      </Grid>
      <Result problem={told.error?.detail}>
        {told.data && (
          <>
            Lost {told.data.deficit_g.toFixed(0)} g. Add{' '}
            <Strong fontSize="figure" lineHeight={1}>
              {told.data.add_g.toFixed(0)}
            </Strong>{' '}
            g at the box's temperature, along the side.
            {told.data.split && (
              <Span display="block" fontWeight="semibold">
                That is much at once: pour {told.data.today_g.toFixed(0)} g today, the rest
                tomorrow.
              </Span>
            )}
            {told.data.left_out_g > 0 && (
              <Span display="block">
                {told.data.left_out_g.toFixed(0)} g more are missing than the medium held: was
                something taken out?
              </Span>
            )}
            <Span display="block" color="soft">
              Less whatever was taken out since: an egg, film or grid.
            </Span>
          </>
        )}
      </Result>
    </FormProvider>
  )
}
