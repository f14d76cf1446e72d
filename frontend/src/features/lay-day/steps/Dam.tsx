import { Box, Text } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { useRules } from '@/shared/api/queries'
import { Button } from '@/shared/ui/Button'
import { Caution } from '@/shared/ui/Caution'
import { Choices } from '@/shared/ui/Choices'
import { TextField } from '@/shared/ui/fields'
import { Notice } from '@/shared/ui/page'
import { checkGrams, typedGrams } from '@/shared/units'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'

/** The dam moved and felt for a lump; when one is left, lay day stops here. */
export function Dam({ day, step, back, change, next }: StepProps) {
  const { state } = day
  const maternal = state.method.dam === 'maternal incubation'
  const form = useForm({ defaultValues: { mass: state.dam_mass_g?.toString() ?? '' } })
  const mass = typedGrams(form.watch('mass'))
  const ranges = useRules().data?.grams
  const before = day.dam_loss?.before_g
  const lost = before && mass > 0 ? 1 - mass / before : null
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      {...(state.lump !== 'left' && { nextLabel: 'Next' })}
      onSubmit={form.handleSubmit((values) => {
        // Enter in the field must not lead past a lump: the step has no way on then.
        if (state.lump === 'left') change(weighed(values))
        else next(weighed(values))
      })}
    >
      <Caution moment="moving the dam" />
      <Text>
        {maternal
          ? 'She keeps her eggs: look without moving her.'
          : 'From behind, head located, hook or lid as a shield. Then feel along her belly.'}
      </Text>
      <Choices
        legend="Is a lump left?"
        columns={3}
        choices={[
          { value: 'none', label: 'No, hollow' },
          { value: 'unsure', label: 'Not sure' },
          { value: 'left', label: 'A lump is left' },
        ]}
        value={state.lump ?? null}
        onChoose={(lump) => change({ lump })}
      />
      {state.lump === 'left' && (
        <>
          <Box role="status">
            <Notice urgent label="Stop">
              She may not be finished: put her back and leave her alone for some hours. What you
              entered is kept; choose again when you have looked again.
            </Notice>
          </Box>
          <Caution moment="retained egg" />
          <Button
            type="button"
            alignSelf="flex-start"
            onClick={form.handleSubmit((values) => next(weighed(values)))}
          >
            Box these eggs; she is still to be watched
          </Button>
        </>
      )}
      {state.lump === 'unsure' && (
        <Text color="soft">
          Feel again tomorrow: Today will ask. A lump that stays is a matter for a vet.
        </Text>
      )}
      {!maternal && (
        <FormProvider {...form}>
          <TextField
            name="mass"
            label="Her weight now, g (if you weigh her)"
            inputMode="decimal"
            check={(text) => checkGrams(text, ranges?.dam_g, { example: 1250 })}
            {...(lost !== null && {
              help: `${before} g before: she lost ${Math.round(lost * 100)} %. A quarter to two fifths is usual.`,
            })}
          />
        </FormProvider>
      )}
    </StepFrame>
  )
}

function weighed({ mass }: { mass: string }) {
  return { dam_mass_g: mass.trim() ? typedGrams(mass) : null }
}
