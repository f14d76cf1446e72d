import { Box, chakra, Flex, Span, Stack, Strong, Text } from '@chakra-ui/react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { FormProvider, useForm } from 'react-hook-form'
import { answer, api, type Problem, type Schemas } from '@/shared/api/client'
import { readAgain } from '@/shared/api/readAgain'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { dayAndTime, fullMoment } from '@/shared/dates'
import { healthQuery, useHealth } from '@/shared/house/useHealth'
import { Button } from '@/shared/ui/Button'
import { TextField } from '@/shared/ui/fields'
import { Notice } from '@/shared/ui/page'
import { showProblem } from '@/shared/ui/toasts'
import { Copies } from './Copies'
import { backupsQuery, copiesQuery } from './queries'
import { size } from './size'

type Backups = Schemas['BackupsResponse']

/** Copies of the house, made every night: how they fare, where they go, and the way back. */
export function Backups() {
  const client = useQueryClient()
  const backups = useQuery(backupsQuery)
  const make = useMutation<Schemas['BackupResponse'], Problem>({
    mutationFn: () => answer(api.POST('/api/house/backups')),
    onSuccess: (made) => {
      if (made.trouble) showProblem(`No backup was made: ${made.trouble}.`)
      return Promise.all(
        [backupsQuery, copiesQuery, healthQuery(true)].map(({ queryKey }) =>
          client.invalidateQueries({ queryKey }),
        ),
      )
    },
    onError: (problem) => showProblem(problem.detail),
  })
  const [moving, setMoving] = useState(false)
  if (!backups.data) return null
  return (
    <>
      <Fares backups={backups.data} />
      <Text color="soft" mb={3}>
        Every night the whole house is copied with its photos, and the copy is opened and checked
        before it counts. The last {backups.data.kept_days} days, {backups.data.kept_weeks} weeks
        and {backups.data.kept_months} months are kept. Passwords of notification channels are in no
        copy.
      </Text>
      <Flex gap={3} wrap="wrap" mb={4}>
        <Button type="button" disabled={make.isPending} onClick={() => make.mutate()}>
          {make.isPending ? 'Backing up\u2026' : 'Back up now'}
        </Button>
        {!backups.data.fixed && (
          <Button type="button" variant="bare" onClick={() => setMoving(!moving)}>
            Use another folder
          </Button>
        )}
      </Flex>
      {moving && <FolderForm backups={backups.data} onDone={() => setMoving(false)} />}
      <Changed />
      <Copies />
    </>
  )
}

function Fares({ backups }: { backups: Backups }) {
  const { last_good: good, last_failed: failed, held } = backups
  return (
    <Stack mb={3} gap={2}>
      {good ? (
        <p>
          Last good backup <Strong>{fullMoment(good.at)}</Strong>, {size(good.size_bytes)}
          {good.photos > 0 && `, with ${good.photos} photos`}.{' '}
          {held === 1 ? 'One is kept' : `${held} are kept`} in{' '}
          <Span wordBreak="break-all">{backups.folder}</Span>.
        </p>
      ) : (
        <p>
          There is no backup yet; the first is made tonight, in{' '}
          <Span wordBreak="break-all">{backups.folder}</Span>.
        </p>
      )}
      {failed && (
        <Notice urgent label="The last one failed.">
          {dayAndTime(failed.at)}: {failed.trouble}. It is tried again.
        </Notice>
      )}
      {backups.beside && (
        <Notice label="On the same disk.">
          These copies help against mistakes. A broken disk or a theft takes them too: name a folder
          on a second disk, a stick or a share.
        </Notice>
      )}
    </Stack>
  )
}

function FolderForm({ backups, onDone }: { backups: Backups; onDone: () => void }) {
  const client = useQueryClient()
  const form = useForm({ defaultValues: { folder: backups.beside ? '' : backups.folder } })
  const correction = useCorrection({
    revision: backups.revision,
    opened: { folder: backups.beside ? null : backups.folder },
    send: (body: Schemas['BackupFolderRequest'], header) =>
      answer(api.PUT('/api/house/backups/folder', { params: { header }, body })),
    actOf: () => null,
    onDone: (told) => {
      if (told) client.setQueryData(backupsQuery.queryKey, told)
      onDone()
    },
  })
  return (
    <FormProvider {...form}>
      <chakra.form
        noValidate
        maxWidth="34rem"
        mb={4}
        onSubmit={form.handleSubmit((said) =>
          correction.save(said, (problem) => form.setError('folder', { message: problem.detail })),
        )}
      >
        <TextField
          name="folder"
          label="Folder on the computer of the house"
          placeholder="/mnt/second-disk/sandboa"
          help="It must be there already. Left empty, backups lie beside the house."
        />
        <Button type="submit" size="small" disabled={correction.pending}>
          Use it
        </Button>
      </chakra.form>
      <BothVersions correction={correction} />
    </FormProvider>
  )
}

/** What the last night found changed from outside, and the way to let it count. */
function Changed() {
  const client = useQueryClient()
  const changed = useHealth(true).data?.changed ?? []
  const accept = useMutation<Schemas['AcceptedResponse'], Problem>({
    mutationFn: () => answer(api.POST('/api/house/acceptance')),
    onSuccess: () => readAgain(client),
    onError: (problem) => showProblem(problem.detail),
  })
  if (changed.length === 0) return null
  return (
    <Box mb={4}>
      <Notice urgent label="Changed from outside.">
        <chakra.ul ps={5} my={1}>
          {changed.slice(0, 5).map((what) => (
            <li key={what}>{what}</li>
          ))}
        </chakra.ul>
        Go back to a copy from before below. Where that would lose more than it saves, what is there
        now can count as recorded.
        <Box mt={2}>
          <Button
            type="button"
            size="small"
            disabled={accept.isPending}
            onClick={() => accept.mutate()}
          >
            Let it count as it is
          </Button>
        </Box>
      </Notice>
    </Box>
  )
}
