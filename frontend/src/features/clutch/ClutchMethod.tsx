import { Box, chakra, Flex, Grid, Span, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { useMethods } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import {
  MethodFields,
  type MethodValues,
  methodOf,
  valuesOfMethod,
} from '@/shared/method/MethodFields'
import { Button } from '@/shared/ui/Button'
import { useTemperatureUnit } from '@/shared/units'

type Clutch = Schemas['ClutchResponse']

/** The method this clutch copied, and where it goes its own way. */
export function ClutchMethod({ clutch }: { clutch: Clutch }) {
  const [open, setOpen] = useState(false)
  return (
    <Box maxWidth="53.75rem">
      {clutch.differences.length === 0 ? (
        <Text>
          As the house method <strong>{clutch.house_method}</strong>.
        </Text>
      ) : (
        <>
          <Text mb={2}>
            House method <strong>{clutch.house_method}</strong>, but:
          </Text>
          <chakra.dl>
            {clutch.differences.map((difference) => (
              <Grid
                key={difference.line}
                templateColumns={{ base: '1fr', sm: '10rem 1fr' }}
                columnGap={4}
                borderTop="1px solid"
                borderColor="line"
                py={2}
              >
                <chakra.dt color="soft">{difference.line}</chakra.dt>
                <chakra.dd>
                  <strong>{difference.own}</strong>
                  <Span color="soft">, not {difference.house}</Span>
                </chakra.dd>
              </Grid>
            ))}
          </chakra.dl>
        </>
      )}
      {open ? (
        <MethodForm clutch={clutch} onDone={() => setOpen(false)} />
      ) : (
        <Button type="button" size="small" mt={3} onClick={() => setOpen(true)}>
          Change for this clutch
        </Button>
      )}
    </Box>
  )
}

function MethodForm({ clutch, onDone }: { clutch: Clutch; onDone: () => void }) {
  const methods = useMethods()
  const unit = useTemperatureUnit()
  const [opened] = useState(() => valuesOfMethod(clutch.method, unit))
  const form = useForm<MethodValues>({ defaultValues: opened })
  const correction = useCorrection({
    revision: clutch.method_revision,
    opened: methodOf(opened, unit),
    send: (body: Schemas['Method'], header) =>
      answer(
        api.PUT('/api/clutches/{code}/method', {
          params: { path: { code: clutch.code }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone,
  })
  const refuse = (problem: Problem) => {
    const field = problem.fields[0]?.field
    const at = field && field in clutch.method ? (field as keyof MethodValues) : 'temperature_c'
    form.setError(at, { message: problem.detail })
  }
  if (!methods.data) return null
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        mt={5}
        onSubmit={form.handleSubmit((values) => correction.save(methodOf(values, unit), refuse))}
      >
        <MethodFields told={methods.data} fixedDam />
        <Flex gap={3} mt={2}>
          <Button type="submit" disabled={correction.pending}>
            Keep for this clutch
          </Button>
          <Button type="button" variant="bare" onClick={onDone}>
            Leave as it is
          </Button>
        </Flex>
      </chakra.form>
      <BothVersions correction={correction} />
    </FormProvider>
  )
}
