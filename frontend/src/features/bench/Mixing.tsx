import { Grid, Span, Strong } from '@chakra-ui/react'
import { FormProvider, useForm, useFormContext } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useChoices } from '@/shared/api/queries'
import { SelectField, TextField } from '@/shared/ui/fields'
import { typedGrams, typedNumber } from '@/shared/units'
import { WaterDepth } from '@/shared/water/WaterDepth'
import { Result } from './Result'
import { useCalculation } from './useCalculation'

type Values = { medium: string; by: string; amount: string; ratio: string }

/** Water for a medium, measured as that medium's is: by weight, by depth, or not at all. */
export function Mixing() {
  const media = useChoices().data?.media
  const form = useForm<Values>({
    mode: 'onChange',
    defaultValues: { medium: 'vermiculite', by: 'mass', amount: '200', ratio: '1' },
  })
  const chosen = form.watch('medium')
  const medium = media?.find((m) => m.name === chosen)
  return (
    <FormProvider {...form}>
      <SelectField
        name="medium"
        label="Medium"
        options={media?.map((m) => m.name) ?? ['vermiculite']}
        help={medium?.how}
        onChoose={(name) => {
          const usual = media?.find((m) => m.name === name)?.ratio
          if (usual != null) form.setValue('ratio', String(usual))
        }}
      />
      {medium?.water_by === 'by depth' && <WaterDepth />}
      {(!medium || medium.water_by === 'by weight') && <ByWeight />}
    </FormProvider>
  )
}

/** Water for a mass, or roughly for a volume, of dry medium. */
function ByWeight() {
  const { medium, by, amount, ratio } = useFormContext<Values>().watch()
  const [much, parts] = [
    by === 'volume' ? typedNumber(amount) : typedGrams(amount),
    typedNumber(ratio),
  ]
  const asked =
    Number.isNaN(much) || Number.isNaN(parts)
      ? null
      : { medium, ratio: parts, ...(by === 'mass' ? { dry_mass_g: much } : { volume_l: much }) }
  const told = useCalculation('mix', asked, (body: Schemas['MixRequest']) =>
    answer(api.POST('/api/bench/mix', { body })),
  )
  return (
    <>
      <Grid templateColumns="1fr 1fr 1fr" gap={4}>
        <SelectField
          name="by"
          label="Measured by"
          options={[
            { value: 'mass', label: 'weight, g' },
            { value: 'volume', label: 'volume, l' },
          ]}
        />
        <TextField
          name="amount"
          label={by === 'mass' ? 'Dry, g' : 'Dry, l'}
          inputMode="decimal"
          check={amountCheck}
        />
        <TextField name="ratio" label="Water per g" inputMode="decimal" check={amountCheck} />
      </Grid>
      <Result problem={told.error?.detail}>
        {told.data && (
          <>
            Add{' '}
            <Strong fontSize="figure" lineHeight={1}>
              {told.data.water_g.toFixed(0)}
            </Strong>{' '}
            g of water to {told.data.dry_mass_g.toFixed(0)} g: {told.data.total_g.toFixed(0)} g
            together.
            {told.data.dry_low_g !== null && told.data.dry_high_g !== null && (
              <Span display="block" color="soft">
                Rough: that volume weighs {told.data.dry_low_g.toFixed(0)} to{' '}
                {told.data.dry_high_g.toFixed(0)} g dry. Weighing wins.
              </Span>
            )}
          </>
        )}
      </Result>
    </>
  )
}

function amountCheck(text: string): true | string {
  return !Number.isNaN(typedNumber(text)) || 'A number.'
}
