import { Box, chakra, Grid } from '@chakra-ui/react'
import { FormProvider, useForm } from 'react-hook-form'
import { useLocation } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { typedNumber, useTemperatureUnit } from '@/shared/units'
import { quantityOf, readSetting, type Setting } from './numbers'

/** One number with its unit, its reason and its default; `grouped`: its group is named too. */
export function SettingLine({ setting, grouped = false }: { setting: Setting; grouped?: boolean }) {
  const hash = decodeURIComponent(useLocation().hash.slice(1))
  const unit = useTemperatureUnit()
  const { unit: told, shown } = quantityOf(setting, unit)
  const form = useForm({ values: { value: shown(setting.value) } })
  const correction = useCorrection({
    revision: setting.revision,
    opened: { value: setting.value },
    send: (body: Schemas['SettingRequest'], header) =>
      answer(
        api.PUT('/api/settings/{name}', { params: { path: { name: setting.name }, header }, body }),
      ),
    actOf: (act) => act,
    onDone: () => {},
  })
  const changed = form.watch('value') !== shown(setting.value)
  const label = `${grouped ? `${setting.group}: ` : ''}${setting.label}, ${told}`
  const span = `${shown(setting.low)} to ${shown(setting.high)}`
  return (
    <FormProvider {...form}>
      <chakra.form
        id={setting.name}
        noValidate
        scrollMarginTop="5rem"
        bg={hash === setting.name ? 'faint' : undefined}
        borderTop="1px solid"
        borderColor="line"
        pt={3}
        onSubmit={form.handleSubmit(({ value }) =>
          correction.save({ value: readSetting(setting, value, unit) }, (problem) =>
            form.setError('value', { message: problem.detail }),
          ),
        )}
      >
        <Grid templateColumns="minmax(0, 1fr) auto" gap={4} alignItems="start">
          <TextField
            name="value"
            label={label}
            inputMode="decimal"
            required
            check={(text) => !Number.isNaN(typedNumber(text)) || 'A number.'}
            help={`${setting.reason} Default ${shown(setting.default)}; ${span}.${learnedWords(setting)}`}
          />
          <Box pt="1.625rem">
            <Button type="submit" disabled={!changed || correction.pending}>
              Set
            </Button>
          </Box>
        </Grid>
      </chakra.form>
      <BothVersions correction={correction} labels={{ value: label }} />
    </FormProvider>
  )
}

/** What the house's own eggs made of it, where they did. */
function learnedWords({ learned, learned_from }: Setting): string {
  if (learned === null) return ''
  const eggs = learned_from === 1 ? 'egg' : 'eggs'
  return ` Your eggs: ${learned.toFixed(1)}, which holds (${learned_from} closed ${eggs} showed it).`
}
