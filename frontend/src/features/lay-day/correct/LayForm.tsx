import { Box, chakra, Grid, Stack, Text } from '@chakra-ui/react'
import { FormProvider, useForm, useFormContext } from 'react-hook-form'
import type { Problem, Schemas } from '@/shared/api/client'
import { sentence } from '@/shared/sentence'
import { Button } from '@/shared/ui/Button'
import { SelectField, TextField } from '@/shared/ui/fields'
import { Heading } from '@/shared/ui/page'
import { stillThere } from '@/shared/ui/stillThere'
import { fromCelsius, typedGrams, typedTemperature, useTemperatureUnit } from '@/shared/units'
import { EggPlaces } from './EggPlaces'
import { fieldOf, type LayValues, requestOf } from './values'

type Props = {
  start: LayValues
  choices: Schemas['ChoicesResponse']
  submitLabel: string
  pending: boolean
  onSubmit: (body: Schemas['LayDayRequest'], refuse: (problem: Problem) => void) => void
}

/** What was recorded of a clutch, to be corrected; refusals of the house are said at the field they are about. */
export function LayForm({ start, choices, submitLabel, pending, onSubmit }: Props) {
  const unit = useTemperatureUnit()
  const form = useForm<LayValues>({ defaultValues: start })

  const refuse = (here: () => boolean) => (problem: Problem) => {
    const told = problem.fields.flatMap(({ field, reason }) => {
      const name = fieldOf(field)
      return name ? [{ name, reason }] : []
    })
    for (const { name, reason } of told) form.setError(name, { message: sentence(reason) })
    if (told.length === 0) form.setError('root', { message: sentence(problem.detail) })
    else if (told[0] && here()) form.setFocus(told[0].name)
  }

  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        onSubmit={form.handleSubmit((values) =>
          onSubmit(requestOf(values, unit), refuse(stillThere())),
        )}
        display="grid"
        gridTemplateColumns={{ base: '1fr', lg: '5fr 6fr' }}
        columnGap={12}
        rowGap={8}
        mt={6}
      >
        <Stack gap={8} minWidth={0}>
          <section>
            <Heading>Clutch</Heading>
            <Pair>
              <TextField name="dam" label="Dam" required offers={choices.dams} />
              <TextField name="sire" label="Sire, if known" offers={choices.sires} />
            </Pair>
            <TextField name="code" label="Code" required />
            <TextField name="laidAt" label="Laid" type="datetime-local" required />
          </section>
          {start.medium && (
            <section>
              <Heading>Box {start.box}</Heading>
              <Pair>
                <SelectField
                  name="medium"
                  label="Medium"
                  options={choices.media.map((m) => m.name)}
                />
                <SelectField name="closing" label="Closing" options={choices.closings} />
              </Pair>
              <Pair>
                <TextField name="dryMass" label="Dry medium, g" inputMode="decimal" check={grams} />
                <TextField name="water" label="Water, g" inputMode="decimal" check={grams} />
              </Pair>
              <RatioHint choices={choices} values={form.watch(['medium', 'dryMass'])} />
            </section>
          )}
          <section>
            <Heading>Place</Heading>
            <Place choices={choices} />
          </section>
        </Stack>
        <Box minWidth={0}>
          <Heading>Eggs where they lie</Heading>
          <EggPlaces choices={choices} />
        </Box>
        <div>
          {form.formState.errors.root && (
            <Text role="alert" color="vessel" fontWeight="semibold" mb={3}>
              {form.formState.errors.root.message}
            </Text>
          )}
          <Button
            type="submit"
            variant="act"
            disabled={pending}
            width={{ base: '100%', md: 'auto' }}
          >
            {submitLabel}
          </Button>
        </div>
      </chakra.form>
    </FormProvider>
  )
}

function Place({ choices }: { choices: Schemas['ChoicesResponse'] }) {
  const form = useFormContext<LayValues>()
  const unit = useTemperatureUnit()
  const cabinet = form.watch('cabinet')
  const known = choices.cabinets.find((c) => c.name === cabinet)
  return (
    <>
      <Pair>
        <TextField
          name="cabinet"
          label="Cabinet"
          required
          offers={choices.cabinets.map((c) => c.name)}
          onChosen={(name) => {
            const chosen = choices.cabinets.find((c) => c.name === name)
            const setPoint = chosen?.set_point_c
            if (setPoint !== undefined && setPoint !== null && !form.getValues('setPoint')) {
              form.setValue('setPoint', fromCelsius(setPoint, unit).toFixed(1))
            }
          }}
        />
        <TextField name="shelf" label="Shelf" required offers={known?.shelves ?? []} />
      </Pair>
      <TextField
        name="setPoint"
        label={`Set point of the cabinet, °${unit}`}
        inputMode="decimal"
        required
        help="Or with its unit, like 88.7F."
        check={(text) => !Number.isNaN(typedTemperature(text, unit)) || 'A number, like 31.5'}
      />
    </>
  )
}

function Pair({ children }: { children: React.ReactNode }) {
  return (
    <Grid templateColumns="1fr 1fr" gap={4}>
      {children}
    </Grid>
  )
}

function RatioHint({
  choices,
  values: [medium, dryMass],
}: {
  choices: Schemas['ChoicesResponse']
  values: [string, string]
}) {
  const ratio = choices.media.find((m) => m.name === medium)?.ratio
  const dry = typedGrams(dryMass)
  if (!ratio || Number.isNaN(dry) || dry <= 0) return null
  return (
    <Text color="soft" fontSize="small">
      {medium} takes {(dry * ratio).toFixed(0)} g of water, 1 : {ratio} by weight.
    </Text>
  )
}

function grams(text: string): true | string {
  return !text.trim() || typedGrams(text) >= 0 || 'Grams as a number, or empty.'
}
