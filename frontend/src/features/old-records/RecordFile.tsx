import { Box, Stack, Text } from '@chakra-ui/react'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { ColumnUses } from '@/shared/files/ColumnUses'
import { DropFile } from '@/shared/files/DropFile'
import { fileBody } from '@/shared/files/fileBody'
import { sentence } from '@/shared/sentence'
import { Fetching, Notice } from '@/shared/ui/page'
import { CheckedList } from './CheckedList'
import { Options } from './Options'
import type { Field, RecordKind } from './queries'
import { KINDS, USES } from './words'

type Choices = { kind?: RecordKind; column?: Field[]; sheet?: string }

/** A list is dropped, its columns are looked over, its lines checked; then all is stored at once. */
export function RecordFile({
  animals,
  largest,
}: {
  animals: Schemas['AnimalResponse'][]
  largest: number
}) {
  const [file, setFile] = useState<File | null>(null)
  const [choices, setChoices] = useState<Choices>({})
  const [refused, setRefused] = useState('')
  const [stored, setStored] = useState('')
  const read = useQuery({
    queryKey: ['record-list', file?.name, file?.size, file?.lastModified, choices],
    enabled: file !== null,
    retry: false,
    refetchInterval: false,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.POST('/api/old-records/files/read', {
          params: { query: choices },
          ...fileBody(file as File),
        }),
      ),
  })
  const take = (next: File | null) => {
    setFile(next)
    setChoices({})
    setRefused('')
  }
  const list = file && !read.error ? read.data : undefined
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
        {file && read.error && <Notice urgent>{sentence(read.error.message)}</Notice>}
        {stored && <Notice label="Stored.">{stored}</Notice>}
        {file && read.isPending && <Fetching />}
      </Box>
      {list && (
        <>
          <Options
            label="What it is a list of"
            options={KINDS}
            value={list.kind}
            onChoose={(kind) => setChoices({ ...choices, kind, column: [] })}
          />
          {list.sheets.length > 1 && (
            <Options
              label="Which sheet"
              options={list.sheets.map((names): [string, string] => [
                names[0] ?? '',
                names.join(', '),
              ])}
              value={list.sheet}
              onChoose={(sheet) => setChoices({ sheet })}
            />
          )}
          <ColumnUses
            columns={list.columns.map(({ heading, examples }) => ({ heading, cells: examples }))}
            uses={list.columns.map(({ holds }, place) => choices.column?.[place] ?? holds)}
            words={USES[list.kind]}
            unused="unused"
            onChoose={(column) => setChoices({ ...choices, kind: list.kind, column })}
          />
          {list.complete ? (
            <CheckedList
              // Other columns are other lines.
              key={JSON.stringify([list.kind, list.sheet, list.columns])}
              list={list}
              animals={animals}
              onStored={(summary) => {
                take(null)
                setStored(summary)
              }}
            />
          ) : (
            <Notice urgent label="A column is missing.">
              {NEEDED[list.kind]}
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
