import { chakra } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { useMethods } from '@/shared/api/queries'
import { fromInputMoment, inputMoment } from '@/shared/dates'
import { Caution } from '@/shared/ui/Caution'
import { Choices } from '@/shared/ui/Choices'
import { TextField } from '@/shared/ui/fields'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'

const AT_HAND = [
  'Box and medium, warm from the cabinet',
  'Soft pencil or marker for the tops',
  'Torch, and a dark corner',
  'Scale',
  'A tub for the dam, hook or lid as a shield',
  'Clean hands or gloves',
]

/** What has to lie ready, when she laid, and how this house does it. */
export function Prepare({ day, step, back, change, next }: StepProps) {
  const methods = useMethods()
  const form = useForm({ defaultValues: { laidAt: inputMoment(day.state.laid_at) } })
  const maternal = day.state.method.dam === 'maternal incubation'
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      nextLabel={maternal ? 'She keeps them' : 'All ready'}
      onSubmit={form.handleSubmit(({ laidAt }) =>
        next(laidAt === inputMoment(day.state.laid_at) ? {} : { laid_at: fromInputMoment(laidAt) }),
      )}
    >
      <Caution moment="disinfecting" />
      {!maternal && (
        <chakra.ul
          display="grid"
          gridTemplateColumns={{ base: '1fr', sm: '1fr 1fr' }}
          rowGap={1}
          columnGap={6}
          fontSize="lead"
        >
          {AT_HAND.map((thing) => (
            <chakra.li key={thing} borderBottom="1px solid" borderColor="line" py={2}>
              {thing}
            </chakra.li>
          ))}
        </chakra.ul>
      )}
      {methods.data && (
        <Choices
          legend="Method"
          columns={{ base: 1, md: 2 }}
          choices={methods.data.methods.map(({ method }) => ({
            value: method.name,
            label: method.name,
            note:
              method.dam === 'maternal incubation'
                ? 'she keeps the clutch, eggs are not touched'
                : `${method.medium}, ${method.closing}`,
          }))}
          value={day.state.method.name}
          onChoose={(name) => {
            const chosen = methods.data.methods.find(({ method }) => method.name === name)
            if (chosen) change({ method: chosen.method })
          }}
        />
      )}
      <FormProvider {...form}>
        <TextField name="laidAt" label="Laid" type="datetime-local" required />
      </FormProvider>
    </StepFrame>
  )
}
