import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { counted } from '@/shared/counted'
import { fileBody } from '@/shared/files/fileBody'
import { useFileRead } from '@/shared/files/useFileRead'
import { Columns } from '@/shared/logger-file/Columns'
import { DropLoggerFile } from '@/shared/logger-file/DropLoggerFile'
import { type FileChoices, Questions } from '@/shared/logger-file/Questions'
import { sentence } from '@/shared/sentence'
import { Notice } from '@/shared/ui/page'
import type { Place } from './places'
import { type Stored, StoreFile } from './StoreFile'
import { Understood } from './Understood'

type Props = { places: Place[]; probes: Schemas['HungProbeResponse'][] }

const NONE: FileChoices = {}

const previewOf = (file: File, choices: FileChoices) =>
  answer(api.POST('/api/readings/files/preview', { params: { query: choices }, ...fileBody(file) }))

/** Drop a file, see what was understood, answer what it leaves open, then store it. */
export function LoggerFile({ places, probes }: Props) {
  const { file, choices, setChoices, refused, setRefused, take, told, problem } = useFileRead(
    'preview',
    NONE,
    previewOf,
  )
  const [stored, setStored] = useState<Stored | null>(null)
  const settled = told?.questions.length === 0
  const rows = told?.sensors.reduce((sum, sensor) => sum + sensor.rows, 0) ?? 0
  return (
    <>
      <DropLoggerFile
        file={file}
        onFile={(next) => {
          take(next)
          setStored(null)
        }}
        onRefused={setRefused}
      />
      <Box aria-live="polite" mt={4}>
        {refused && <Notice urgent>{refused}</Notice>}
        {problem && <Notice urgent>{sentence(problem)}</Notice>}
        {told && (
          <>
            <Questions
              questions={told.questions}
              sheets={told.sheets}
              choices={choices}
              onChoose={setChoices}
            />
            <Columns
              columns={told.columns}
              chosen={choices.column}
              doubt={told.questions.find(({ about }) => about === 'columns')?.text}
              onChoose={(column) => setChoices({ ...choices, column })}
            />
            {settled && <Understood told={told} />}
          </>
        )}
        {stored?.map((sensor) => (
          <Outcome key={sensor.probe} stored={sensor} />
        ))}
      </Box>
      {file && told && settled && rows > 0 && !stored && (
        <StoreFile
          // Other columns are other sensors.
          key={JSON.stringify(choices.column)}
          file={file}
          told={told}
          choices={choices}
          places={places}
          probes={probes}
          onStored={setStored}
        />
      )}
    </>
  )
}

function Outcome({ stored: { intake, probe } }: { stored: Stored[number] }) {
  const left = [
    intake.known && `${intake.known.toLocaleString('en')} were known already`,
    intake.conflicting && `${intake.conflicting} contradict what is stored and were left out`,
    intake.before_probe && `${intake.before_probe} are from before ${probe} hung there`,
    intake.in_future && `${intake.in_future} lie in the future: check the logger's clock`,
  ].filter(Boolean)
  return (
    <Notice>
      <strong>
        {intake.new
          ? `${counted(intake.new, 'reading')} stored for ${probe}.`
          : `Nothing new for ${probe} in this file; nothing changed.`}
      </strong>
      {left.length > 0 && ` ${left.join('; ')}.`}
    </Notice>
  )
}
