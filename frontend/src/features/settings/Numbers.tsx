import { Box, chakra, Grid, Span } from '@chakra-ui/react'
import { useEffect } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { useLocation } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { typedNumber } from '@/shared/units'

type Setting = Schemas['SettingResponse']

/** The part of the address that names a number or a group of them. */
function useHash(): string {
  return decodeURIComponent(useLocation().hash.slice(1))
}

/** The house's numbers by what they judge; a group opens when the address names one of it. */
export function Numbers({ settings }: { settings: Setting[] }) {
  const hash = useHash()
  const groups = [...new Set(settings.map((setting) => setting.group))]
  useEffect(() => {
    if (hash) document.getElementById(hash)?.scrollIntoView()
  }, [hash])
  return groups.map((group) => {
    const own = settings.filter((setting) => setting.group === group)
    const named = hash === group || own.some((setting) => setting.name === hash)
    return (
      <chakra.details
        key={group}
        id={group}
        open={named || group === 'House' || undefined}
        scrollMarginTop="5rem"
        borderTop="1.5px solid"
        borderColor="line"
      >
        <chakra.summary
          minHeight="3.25rem"
          py={3}
          fontWeight="bold"
          fontSize="lead"
          cursor="pointer"
        >
          {group}
          <Span color="soft" fontWeight="medium" fontSize="fine">
            {' '}
            {changedWords(own)}
          </Span>
        </chakra.summary>
        {own.map((setting) => (
          <SettingLine key={`${setting.name}-${setting.value}`} setting={setting} />
        ))}
      </chakra.details>
    )
  })
}

function changedWords(own: Setting[]): string {
  const changed = own.filter((setting) => setting.value !== setting.default).length
  return changed ? `${own.length} numbers, ${changed} your own` : `${own.length} numbers`
}

/** What the house's own eggs made of it, where they did. */
function learnedWords({ learned, learned_from }: Setting): string {
  if (learned === null) return ''
  const eggs = learned_from === 1 ? 'egg' : 'eggs'
  return ` Your eggs: ${learned.toFixed(1)}, which holds (${learned_from} closed ${eggs} showed it).`
}

function SettingLine({ setting }: { setting: Schemas['SettingResponse'] }) {
  const hash = useHash()
  const form = useForm({ defaultValues: { value: String(setting.value) } })
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
  const changed = form.watch('value') !== String(setting.value)
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
          correction.save({ value: typedNumber(value) }, (problem) =>
            form.setError('value', { message: problem.detail }),
          ),
        )}
      >
        <Grid templateColumns="minmax(0, 1fr) auto" gap={4} alignItems="start">
          <TextField
            name="value"
            label={`${setting.label}, ${setting.unit}`}
            inputMode="decimal"
            required
            check={(text) => !Number.isNaN(typedNumber(text)) || 'A number.'}
            help={`${setting.reason} Default ${setting.default}.${learnedWords(setting)}`}
          />
          <Box pt="1.625rem">
            <Button type="submit" disabled={!changed || correction.pending}>
              Set
            </Button>
          </Box>
        </Grid>
      </chakra.form>
      <BothVersions
        correction={correction}
        labels={{ value: `${setting.label}, ${setting.unit}` }}
      />
    </FormProvider>
  )
}
