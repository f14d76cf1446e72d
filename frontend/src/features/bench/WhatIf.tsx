import { Box, Grid, Text } from '@chakra-ui/react'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Schemas } from '@/shared/api/client'
import type { operations } from '@/shared/api/schema'
import { counted } from '@/shared/counted'
import { day, fromInputMoment, inputMoment } from '@/shared/dates'
import { fileBody } from '@/shared/files/fileBody'
import { DevelopmentRibbon } from '@/shared/forecast/DevelopmentRibbon'
import { ForecastWindows } from '@/shared/forecast/ForecastWindows'
import { USUAL_C } from '@/shared/forecast/usual'
import { Columns } from '@/shared/logger-file/Columns'
import { DropLoggerFile } from '@/shared/logger-file/DropLoggerFile'
import { type FileChoices, Questions } from '@/shared/logger-file/Questions'
import { TextField } from '@/shared/ui/fields'
import { Notice } from '@/shared/ui/page'
import {
  fromCelsius,
  type TemperatureUnit,
  toCelsius,
  typedNumber,
  useTemperatureUnit,
} from '@/shared/units'

type Asked = operations['bench_forecast']['parameters']['query']
type Values = { laidAt: string; setPoint: string; other: string; eggs: string }

/** A forecast from a lay date and a set point, perhaps a logger's file, against another set point. */
export function WhatIf({ now }: { now: string }) {
  const unit = useTemperatureUnit()
  const [file, setFile] = useState<File | null>(null)
  const [choices, setChoices] = useState<FileChoices>({})
  const [refused, setRefused] = useState('')
  const form = useForm<Values>({
    mode: 'onChange',
    defaultValues: {
      laidAt: inputMoment(new Date(Date.parse(now) - 20 * 86_400_000)),
      setPoint: fromCelsius(USUAL_C, unit).toFixed(1),
      other: fromCelsius(30, unit).toFixed(1),
      eggs: '6',
    },
  })
  const asked = requestOf(form.watch(), unit)
  const query = useQuery({
    queryKey: ['what-if', asked, file?.name, file?.lastModified, choices],
    enabled: asked !== null,
    retry: false,
    refetchInterval: false,
    placeholderData: keepPreviousData,
    queryFn: async () => {
      const query = { ...(asked as Asked), ...choices }
      return answer(
        api.POST('/api/bench/forecast', { params: { query }, ...(file ? fileBody(file) : {}) }),
      )
    },
  })
  const told = query.data
  const doubt = told?.questions.find(({ about }) => about === 'columns')?.text
  return (
    <FormProvider {...form}>
      <Grid templateColumns={{ base: '1fr 1fr', lg: '15rem 9rem 11rem 6rem 1fr' }} columnGap={4}>
        <Box gridColumn={{ base: 'span 2', lg: 'auto' }}>
          <TextField name="laidAt" label="Laid" type="datetime-local" required />
        </Box>
        <TextField
          name="setPoint"
          label={`Set point, °${unit}`}
          inputMode="decimal"
          required
          check={aNumber}
        />
        <TextField
          name="other"
          label={`Against, °${unit}`}
          inputMode="decimal"
          check={aNumberOrNone}
        />
        <TextField name="eggs" label="Eggs" inputMode="numeric" required check={aNumber} />
        <Box gridColumn={{ base: 'span 2', lg: 'auto' }} mb={4}>
          <DropLoggerFile
            file={file}
            onFile={(next) => {
              setFile(next)
              setChoices({})
              setRefused('')
            }}
            onRefused={setRefused}
          />
        </Box>
      </Grid>
      {(refused || query.error) && <Notice urgent>{refused || query.error?.message}</Notice>}
      {told && (
        <>
          <Questions
            questions={told.questions}
            sheets={told.sheets}
            choices={choices}
            onChoose={setChoices}
          />
          {doubt && (
            <Columns
              columns={told.columns}
              chosen={choices.column}
              doubt={doubt}
              onChoose={(column) => setChoices({ ...choices, column })}
            />
          )}
        </>
      )}
      {told?.forecast && !query.error && asked && <Answer told={told} asked={asked} />}
    </FormProvider>
  )
}

function Answer({ told, asked }: { told: Schemas['WhatIfResponse']; asked: Asked }) {
  const unit = useTemperatureUnit()
  const { forecast, other, shift_days: shift } = told
  if (!forecast) return null
  if (forecast.overdue) {
    return <Notice>{forecast.late}</Notice>
  }
  const otherPoint = asked.other_set_point_c
  const shown = `${fromCelsius(otherPoint ?? 0, unit).toFixed(1)} °${unit}`
  return (
    <>
      {shift !== null && shift !== undefined && other?.typical_pip && (
        <Text fontSize="large" mb={4}>
          At {shown} instead:{' '}
          <strong>
            {Math.abs(shift).toFixed(1)} days {shift >= 0 ? 'later' : 'earlier'}
          </strong>
          , about {day(other.typical_pip.p50)} (dashed).
        </Text>
      )}
      {forecast.late && <Notice>{forecast.late}</Notice>}
      <DevelopmentRibbon
        forecast={forecast}
        pieces={told.ribbon}
        laidAt={asked.laid_at}
        other={other && !other.overdue ? other : undefined}
      />
      <Grid templateColumns={{ base: '1fr', lg: '3fr 2fr' }} gap={10} mt={4}>
        <ForecastWindows forecast={forecast} />
        <div>
          <p>{told.rests_on}</p>
          {told.readings > 0 && <p>{counted(told.readings, 'reading')} from the file.</p>}
          {told.bad_rows.length > 0 && (
            <Text color="soft">
              {told.bad_rows.length} rows left out, the first: line {told.bad_rows[0]?.line},{' '}
              {told.bad_rows[0]?.reason}.
            </Text>
          )}
        </div>
      </Grid>
    </>
  )
}

function requestOf(values: Values, unit: TemperatureUnit): Asked | null {
  const setPoint = toCelsius(typedNumber(values.setPoint), unit)
  const other = values.other.trim() ? toCelsius(typedNumber(values.other), unit) : null
  const eggs = typedNumber(values.eggs)
  if ([setPoint, eggs, other ?? 0].some(Number.isNaN) || !values.laidAt) return null
  return {
    laid_at: fromInputMoment(values.laidAt),
    set_point_c: setPoint,
    other_set_point_c: other,
    eggs,
  }
}

function aNumber(text: string): true | string {
  return !Number.isNaN(typedNumber(text)) || 'A number.'
}

function aNumberOrNone(text: string): true | string {
  return !text.trim() || aNumber(text)
}
