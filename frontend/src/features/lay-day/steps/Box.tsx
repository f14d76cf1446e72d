import { Grid, Span, Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useChoices, useMethods, useRules, useToday } from '@/shared/api/queries'
import { usualRatio } from '@/shared/method/MethodFields'
import { Choices } from '@/shared/ui/Choices'
import { SelectField, TextField } from '@/shared/ui/fields'
import { Waiting } from '@/shared/ui/page'
import { checkGrams, notANumber, typedGrams, typedNumber } from '@/shared/units'
import { WaterDepth } from '@/shared/water/WaterDepth'
import { StepFrame } from '../StepFrame'
import type { State, StepProps } from '../steps'
import { type FurtherBox, MoreBoxes } from './MoreBoxes'

type Values = {
  medium: string
  contact: string
  closing: string
  measure: string
  dry: string
  ratio: string
  water: string
  setUp: string
  further: FurtherBox[]
  into: string
}

/** Medium with its water, closing and grid, all from the method; masses if they are known. */
export function Box({ day, step, back, change, next }: StepProps) {
  const choices = useChoices()
  const methods = useMethods()
  const { state } = day
  const form = useForm<Values>({ defaultValues: valuesOf(state) })
  const today = useToday()
  const [medium, measure, dry, ratio] = form.watch(['medium', 'measure', 'dry', 'ratio'])
  const mix = useMix(medium, measure, amount(dry, measure === 'volume'), typedNumber(ratio))
  const ranges = useRules().data?.grams
  if (!choices.data || !methods.data) return <Waiting />
  const usual = choices.data.media.find((m) => m.name === medium)
  const { contact: contacts = [], closing: closings = [] } = methods.data.choices
  const into = form.watch('into')
  const there = (today.data?.boxes ?? []).filter((box) => box.kind === 'incubation')

  const submit = (values: Values) =>
    next(stateOf(values, state, mix.data, usual?.water_by === 'by weight'))
  const number = (text: string) =>
    !text.trim() || typedNumber(text) > 0 || notANumber(text, 'A number, or empty.')
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      nextLabel="The box is ready"
      onSubmit={form.handleSubmit(submit)}
    >
      <FormProvider {...form}>
        {there.length > 0 && (
          <SelectField
            name="into"
            label="They go into"
            options={[
              { value: '', label: 'a box of their own' },
              ...there.map(({ name, eggs, cabinet, shelf }) => ({
                value: name,
                label: `box ${name} with ${eggs.length} eggs; ${cabinet}, ${shelf}`,
              })),
            ]}
          />
        )}
        {!into && (
          <>
            <Grid templateColumns={{ base: '1fr', sm: '1fr 1fr' }} columnGap={4}>
              <SelectField
                name="medium"
                label="Medium"
                options={choices.data.media.map((m) => m.name)}
                help={usual?.how}
                onChoose={(name) => {
                  const { media } = choices.data
                  form.setValue('ratio', usualRatio(media, name))
                  if (media.find((m) => m.name === name)?.on_grid)
                    form.setValue('contact', 'on a grid')
                }}
              />
              <SelectField name="closing" label="Closing" options={closings} />
            </Grid>
            <Choices
              legend="Eggs"
              columns={2}
              choices={contacts.map((contact) => ({ value: contact, label: contact }))}
              value={form.watch('contact')}
              onChoose={(contact) => form.setValue('contact', contact)}
            />
            {usual?.water_by === 'by depth' && (
              <WaterDepth onUse={(water) => form.setValue('water', String(water))} />
            )}
            {usual?.water_by !== 'by weight' && (
              <TextField
                name="water"
                label="Water, g (empty when nobody knows)"
                inputMode="decimal"
                check={(text) => checkGrams(text, ranges?.water_g)}
              />
            )}
            {usual?.water_by === 'by weight' && (
              <div>
                <Choices
                  legend="Dry medium, measured by"
                  columns={2}
                  choices={[
                    { value: 'weight', label: 'weight' },
                    { value: 'volume', label: 'volume' },
                  ]}
                  value={measure}
                  onChoose={(chosen) => form.setValue('measure', chosen)}
                />
                <Grid templateColumns="1fr 1fr 1fr" gap={3} mt={3}>
                  <TextField
                    name="dry"
                    label={measure === 'volume' ? 'Dry, l' : 'Dry, g'}
                    inputMode="decimal"
                    check={
                      measure === 'volume' ? number : (text) => checkGrams(text, ranges?.medium_g)
                    }
                  />
                  <TextField name="ratio" label="Water per g" inputMode="decimal" check={number} />
                  <TextField
                    name="water"
                    label="Water, g"
                    inputMode="decimal"
                    check={(text) => checkGrams(text, ranges?.water_g)}
                    placeholder={mix.data ? mix.data.water_g.toFixed(0) : ''}
                  />
                </Grid>
                {mix.data && (
                  <Text role="status" fontWeight="semibold">
                    Add {mix.data.water_g.toFixed(0)} g of water to {mix.data.dry_mass_g.toFixed(0)}{' '}
                    g of {medium}.
                    {mix.data.rough && (
                      <Span color="soft" fontWeight="medium">
                        {' '}
                        Rough, by volume: weighing wins.
                      </Span>
                    )}
                  </Text>
                )}
                {mix.error && (
                  <Text role="alert" color="vessel" fontWeight="semibold">
                    {mix.error.detail}
                  </Text>
                )}
              </div>
            )}
            <TextField
              name="setUp"
              label="Whole box with eggs, g (if you weigh boxes)"
              inputMode="decimal"
              help="The reference for every top-up later: box, medium, water and eggs, closed."
              check={(text) => checkGrams(text, ranges?.box_g)}
            />
          </>
        )}
        <MoreBoxes
          day={day}
          eggs={state.eggs}
          media={choices.data.media.map((m) => m.name)}
          closings={closings}
          most={choices.data.most_further_boxes}
          onEggs={(eggs) => change({ eggs, further: furtherOf(form.getValues()) })}
        />
      </FormProvider>
    </StepFrame>
  )
}

function valuesOf(state: State): Values {
  return {
    medium: state.method.medium,
    contact: state.method.contact,
    closing: state.method.closing,
    measure: state.dry_volume_l ? 'volume' : 'weight',
    dry: (state.dry_volume_l ?? state.dry_mass_g)?.toString() ?? '',
    ratio: state.method.ratio?.toString() ?? '',
    water: state.water_g?.toString() ?? '',
    setUp: state.set_up_mass_g?.toString() ?? '',
    further: (state.further ?? []).map((box) => ({
      medium: box.medium ?? '',
      closing: box.closing ?? '',
      dry: box.dry_mass_g?.toString() ?? '',
      water: box.water_g?.toString() ?? '',
      setUp: box.set_up_mass_g?.toString() ?? '',
    })),
    into: state.into ?? '',
  }
}

/** What was typed, as the lay day keeps it; grams left empty are worked out, or not known. */
function stateOf(
  values: Values,
  state: State,
  mix: Mixed | undefined,
  byWeight: boolean,
): Partial<State> {
  const byVolume = values.measure === 'volume'
  const dryTyped = byWeight && values.dry.trim() ? amount(values.dry, byVolume) : null
  return {
    method: {
      ...state.method,
      medium: values.medium,
      contact: values.contact as Schemas['Contact'],
      closing: values.closing as Schemas['Closing'],
      ratio: values.ratio.trim() ? typedNumber(values.ratio) : null,
    },
    dry_volume_l: byVolume ? dryTyped : null,
    dry_mass_g: byVolume ? (mix?.dry_mass_g ?? null) : dryTyped,
    water_g: grams(values.water) ?? mix?.water_g ?? null,
    set_up_mass_g: grams(values.setUp),
    into: values.into || null,
    further: furtherOf(values),
  }
}

function furtherOf(values: Values): Schemas['FurtherBoxState'][] {
  return values.further.map((box) => ({
    medium: box.medium || null,
    closing: (box.closing || null) as Schemas['Closing'] | null,
    dry_mass_g: grams(box.dry),
    water_g: grams(box.water),
    set_up_mass_g: grams(box.setUp),
  }))
}

function grams(text: string): number | null {
  return text.trim() ? typedGrams(text) : null
}

/** Litres or grams of dry medium, as typed. */
function amount(text: string, byVolume: boolean): number {
  return byVolume ? typedNumber(text) : typedGrams(text)
}

type Mixed = { dry_mass_g: number; water_g: number; rough: boolean }

/** Water for the dry medium as typed; nothing while there is nothing to work out. */
function useMix(medium: string, measure: string, dry: number, ratio: number) {
  const ready = dry > 0 && ratio > 0
  return useQuery<Mixed, Problem>({
    queryKey: ['mix', medium, measure, dry, ratio],
    enabled: ready,
    retry: false,
    refetchInterval: false,
    queryFn: async () => {
      const amount = measure === 'volume' ? { volume_l: dry } : { dry_mass_g: dry }
      const told = await answer(api.POST('/api/bench/mix', { body: { medium, ratio, ...amount } }))
      return { dry_mass_g: told.dry_mass_g, water_g: told.water_g, rough: measure === 'volume' }
    },
  })
}
