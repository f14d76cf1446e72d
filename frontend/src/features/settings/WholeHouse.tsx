import { Box, Flex, Stack, Strong, Text } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Problem, problemOf, type Schemas } from '@/shared/api/client'
import { useRules } from '@/shared/api/queries'
import { readAgain } from '@/shared/api/readAgain'
import { readerHeaders } from '@/shared/api/readerHeaders'
import { under } from '@/shared/api/under'
import { DropFile } from '@/shared/files/DropFile'
import { Button } from '@/shared/ui/Button'
import { Notice } from '@/shared/ui/page'
import { houseQuery } from './queries'

/** Everything out as a package that other tools read, and into a house that is empty. */
export function WholeHouse() {
  const [taking, setTaking] = useState(false)
  const house = useQuery(houseQuery)
  return (
    <>
      {house.data && (
        <Text mb={3}>
          This house is in <Strong wordBreak="break-all">{house.data.folder}</Strong> on the machine
          that runs Sandboa ({megabytes(house.data.database_bytes)} without photos).
        </Text>
      )}
      <Text color="soft" mb={3}>
        Every record and photo as a Tabular Data Package: a zip of CSV files with a description of
        each. It goes whole into an empty house; two houses are not merged.
      </Text>
      <Flex gap={3} wrap="wrap" mb={4}>
        <Button asChild>
          <a href={under('/api/house/package')} download>
            Export the house
          </a>
        </Button>
        {!taking && (
          <Button type="button" onClick={() => setTaking(true)}>
            Import a package
          </Button>
        )}
      </Flex>
      {taking && <TakeIn />}
    </>
  )
}

function megabytes(bytes: number): string {
  return `${Math.max(bytes / 1e6, 0.1).toFixed(1)} MB`
}

function TakeIn() {
  const client = useQueryClient()
  const rules = useRules()
  const [file, setFile] = useState<File | null>(null)
  const [refused, setRefused] = useState('')
  const take = useMutation<Schemas['PackageTakenResponse'], Problem, File>({
    mutationFn: send,
    onSuccess: () => readAgain(client),
    onError: (problem) => setRefused(problem.detail),
  })
  if (!rules.data) return null
  return (
    <Stack gap={3}>
      <DropFile
        file={file}
        what="house package"
        largest={rules.data.largest_package_bytes}
        onFile={(chosen) => {
          setRefused('')
          setFile(chosen)
        }}
        onRefused={setRefused}
      />
      {refused && (
        <Box role="alert">
          <Notice urgent>{refused}</Notice>
        </Box>
      )}
      {take.data ? (
        <Text role="status" fontWeight="semibold">
          {take.data.rows} rows of {Object.keys(take.data.tables).length} tables are in this house
          now.
        </Text>
      ) : (
        <Box>
          <Button
            type="button"
            variant="act"
            disabled={!file || take.isPending}
            onClick={() => file && take.mutate(file)}
          >
            {take.isPending ? 'Taking it in\u2026' : 'Take it in'}
          </Button>
        </Box>
      )}
    </Stack>
  )
}

/** A file of gigabytes goes as it is, not through the form of the typed client. */
async function send(file: File): Promise<Schemas['PackageTakenResponse']> {
  const response = await fetch(under('/api/house/package'), {
    method: 'POST',
    headers: { 'Content-Type': 'application/zip', ...readerHeaders() },
    body: file,
  }).catch(() => {
    throw new Problem('Sandboa does not answer. Nothing was stored.', 0, [])
  })
  const told = await response.json().catch(() => null)
  if (!response.ok) throw problemOf(told, response.status)
  return told
}
