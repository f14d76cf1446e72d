import { chakra } from '@chakra-ui/react'
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
      <chakra.div display="grid" gridTemplateColumns="1fr 1fr 1fr" gap={4}>
        <TextField name="before" label="Box at set-up, g" inputMode="decimal" check={check} />
        <TextField name="now" label="Box today, g" inputMode="decimal" check={check} />
        <TextField name="water" label="Water then, g" inputMode="decimal" check={check} />
      </chakra.div>
      <Result problem={told.error?.detail}>
        {told.data && (
          <>
            Lost {told.data.deficit_g.toFixed(0)} g. Add{' '}
            <chakra.strong fontSize="1.9em" lineHeight={1}>
              {told.data.add_g.toFixed(0)}
            </chakra.strong>{' '}
            g at the box's temperature, along the side.
            {told.data.split && (
              <chakra.span display="block" fontWeight={650}>
                That is much at once: pour {told.data.today_g.toFixed(0)} g today, the rest
                tomorrow.
              </chakra.span>
            )}
            {told.data.left_out_g > 0 && (
              <chakra.span display="block">
                {told.data.left_out_g.toFixed(0)} g more are missing than the medium held: was
                something taken out?
              </chakra.span>
            )}
            <chakra.span display="block" color="soft">
              Less whatever was taken out since: an egg, film or grid.
            </chakra.span>
          </>
        )}
      </Result>
    </FormProvider>
  )
}
