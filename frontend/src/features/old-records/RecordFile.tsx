import { Box, Stack, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { ColumnUses } from '@/shared/files/ColumnUses'
import { DropFile } from '@/shared/files/DropFile'
import { fileBody } from '@/shared/files/fileBody'
import { useFileRead } from '@/shared/files/useFileRead'
import { sentence } from '@/shared/sentence'
import { Fetching, Notice } from '@/shared/ui/page'
import { CheckedList } from './CheckedList'
import { Options } from './Options'
import type { Field, RecordKind } from './queries'
import { KINDS, USES } from './words'

type Choices = { kind?: RecordKind; column?: Field[]; sheet?: string }

const NONE: Choices = {}

const readList = (file: File, choices: Choices) =>
  answer(api.POST('/api/old-records/files/read', { params: { query: choices }, ...fileBody(file) }))

/** A list is dropped, its columns are looked over, its lines checked; then all is stored at once. */
export function RecordFile({
  animals,
  largest,
}: {
  animals: Schemas['AnimalResponse'][]
  largest: number
}) {
  const { file, choices, setChoices, refused, setRefused, take, told, problem, pending } =
    useFileRead('record-list', NONE, readList)
  const [stored, setStored] = useState('')
  return (
    <Stack gap={4}>
      <Text color="soft" maxWidth="44rem">
        A table of clutches, animals, weights or visits, as CSV, XLSX or ODS. Its first line names
        the columns. Sheets with the same columns come in together.
      </Text>
      <DropFile
        file={file}
        what="list"
        largest={largest}
        onFile={(next) => {
          take(next)
          setStored('')
        }}
        onRefused={setRefused}
      />
      <Box aria-live="polite">
        {refused && <Notice urgent>{refused}</Notice>}
        {problem && <Notice urgent>{sentence(problem)}</Notice>}
        {stored && <Notice label="Stored.">{stored}</Notice>}
        {pending && <Fetching />}
      </Box>
      {told && (
        <>
          <Options
            label="What it is a list of"
            options={KINDS}
            value={told.kind}
            onChoose={(kind) => setChoices({ ...choices, kind, column: [] })}
          />
          {told.sheets.length > 1 && (
            <Options
              label="Which sheet"
              options={told.sheets.map((names): [string, string] => [
                names[0] ?? '',
                names.join(', '),
              ])}
              value={told.sheet}
              onChoose={(sheet) => setChoices({ sheet })}
            />
          )}
          <ColumnUses
            columns={told.columns.map(({ heading, examples }) => ({ heading, cells: examples }))}
            uses={told.columns.map(({ holds }, place) => choices.column?.[place] ?? holds)}
            words={USES[told.kind]}
            unused="unused"
            onChoose={(column) => setChoices({ ...choices, kind: told.kind, column })}
          />
          {told.complete ? (
            <CheckedList
              // Other columns are other lines.
              key={JSON.stringify([told.kind, told.sheet, told.columns])}
              list={told}
              animals={animals}
              onStored={(summary) => {
                take(null)
                setStored(summary)
              }}
            />
          ) : (
            <Notice urgent label="A column is missing.">
              {NEEDED[told.kind]}
            </Notice>
          )}
        </>
      )}
    </Stack>
  )
}

const NEEDED: Record<RecordKind, string> = {
  clutches: 'Say which column is the dam, which the day of laying, and which the eggs.',
  animals: 'Say which column is the name, and which tells dams from sires.',
  weights: 'Say which column is the animal, which the day, and which the weight.',
  pairings: 'Say which column is the dam, which the sire, and from when they were together.',
}
