import { Box, chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { OriginFields } from '@/shared/origin/OriginFields'
import { type OriginValues, originOf, originValues, refusedField } from '@/shared/origin/values'
import { Button } from '@/shared/ui/Button'
import { FormEnd } from '@/shared/ui/FormEnd'
import { useTemperatureUnit } from '@/shared/units'

type Clutch = Schemas['ClutchResponse']
type Body = Schemas['OriginRequest']

const SEEN_LAID: Body = { kind: null }

/** Where a clutch comes from that nobody saw laid: said, corrected, or taken back. */
export function OriginForm({ clutch, onDone }: { clutch: Clutch; onDone: () => void }) {
  const unit = useTemperatureUnit()
  const [start] = useState(() => originValues(clutch.origin, unit))
  const form = useForm<{ origin: OriginValues }>({ defaultValues: { origin: start } })
  const correction = useCorrection({
    revision: clutch.origin_revision,
    opened: clutch.origin ? originOf(start, unit) : null,
    send: (body: Body, header) =>
      answer(
        api.PUT('/api/clutches/{code}/origin', {
          params: { path: { code: clutch.code }, header },
          body,
        }),
      ),
    actOf: (act) => act,
    onDone,
  })
  const save = (body: Body, values: OriginValues) =>
    correction.save(body, (problem) =>
      form.setError(`origin.${refusedField(problem, values)}`, { message: problem.detail }),
    )
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        aria-label="Where they come from"
        maxWidth="47.5rem"
        mt={4}
        onSubmit={form.handleSubmit(({ origin }) => save(originOf(origin, unit), origin))}
      >
        <OriginFields />
        <FormEnd label="Record it" disabled={correction.pending} onLeave={onDone}>
          {clutch.origin && (
            <Button
              type="button"
              disabled={correction.pending}
              onClick={() =>
                save({ ...SEEN_LAID, laid_at: clutch.laid_at }, form.getValues().origin)
              }
            >
              It was seen laid
            </Button>
          )}
        </FormEnd>
      </chakra.form>
      <Box>
        <BothVersions correction={correction} labels={{}} />
      </Box>
    </FormProvider>
  )
}
