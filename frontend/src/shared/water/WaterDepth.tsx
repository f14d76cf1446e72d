import { Grid, Text } from '@chakra-ui/react'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem } from '@/shared/api/client'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { typedNumber } from '@/shared/units'

/** Grams of water that stand so deep in a box; `onUse` takes them over where they are asked for. */
export function WaterDepth({ onUse }: { onUse?: (grams: number) => void }) {
  const form = useForm({ mode: 'onChange', defaultValues: { depth: '', length: '', width: '' } })
  const typed = form.watch()
  const [depth, length, width] = [typed.depth, typed.length, typed.width].map(typedNumber) as [
    number,
    number,
    number,
  ]
  const told = useQuery<{ water_g: number }, Problem>({
    queryKey: ['water by depth', depth, length, width],
    enabled: depth > 0 && length > 0 && width > 0,
    retry: false,
    refetchInterval: false,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.POST('/api/bench/depth', {
          body: { depth_mm: depth, length_cm: length, width_cm: width },
        }),
      ),
  })
  const water = told.data?.water_g
  return (
    <FormProvider {...form}>
      <Grid templateColumns="1fr 1fr 1fr" gap={4} alignItems="end">
        <TextField name="depth" label="Deep, mm" inputMode="decimal" check={check} />
        <TextField name="length" label="Long, cm" inputMode="decimal" check={check} />
        <TextField name="width" label="Wide, cm" inputMode="decimal" check={check} />
      </Grid>
      {told.error && (
        <Text role="alert" color="vessel" fontWeight="semibold">
          {told.error.detail}
        </Text>
      )}
      {water !== undefined && !told.error && (
        <Text role="status" fontSize="lead">
          That is {water.toFixed(0)} g of water; less where the walls slope inwards.
        </Text>
      )}
      {onUse && water !== undefined && (
        <Button type="button" variant="bare" onClick={() => onUse(Math.round(water))}>
          Write down {water.toFixed(0)} g
        </Button>
      )}
    </FormProvider>
  )
}

function check(text: string): true | string {
  return !text.trim() || !Number.isNaN(typedNumber(text)) || 'A number.'
}
