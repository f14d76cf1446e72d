import { Box, chakra, Flex, Span } from '@chakra-ui/react'
import { type ReactNode, useState } from 'react'
import { answer, api } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { fullMoment } from '@/shared/dates'
import { Photos } from '@/shared/photos/Photos'
import { Button } from '@/shared/ui/Button'
import { NoteForm } from './NoteForm'
import type { Note } from './queries'

/** A note with its photos; corrected and taken away where it stands. */
export function NoteItem({ note, about }: { note: Note; about?: ReactNode }) {
  const [correcting, setCorrecting] = useState(false)
  const take = useAct(
    () => answer(api.DELETE('/api/notes/{note}', { params: { path: { note: note.id } } })),
    (act) => act,
  )
  return (
    <chakra.li borderTop="1px solid" borderColor="line" py={3}>
      <Flex wrap="wrap" align="baseline" columnGap={4}>
        <chakra.time dateTime={note.at} color="soft">
          {fullMoment(note.at)}
        </chakra.time>
        {about}
        {!correcting && (
          <Span marginStart="auto" _print={{ display: 'none' }}>
            <Button type="button" variant="bare" size="small" onClick={() => setCorrecting(true)}>
              Edit
            </Button>
            <Button type="button" variant="bare" size="small" onClick={() => take.mutate()}>
              Take away
            </Button>
          </Span>
        )}
      </Flex>
      {correcting ? (
        <Correcting note={note} onDone={() => setCorrecting(false)} />
      ) : (
        <chakra.p whiteSpace="pre-wrap" overflowWrap="anywhere" maxWidth="44rem" mb={2}>
          {note.text}
        </chakra.p>
      )}
      <Box _print={{ '& label': { display: 'none' } }}>
        <Photos photos={note.photos} of={{ owner: note.id }} quiet />
      </Box>
    </chakra.li>
  )
}

function Correcting({ note, onDone }: { note: Note; onDone: () => void }) {
  const correction = useCorrection({
    revision: note.revision,
    opened: { text: note.text },
    send: (body: { text: string }, header) =>
      answer(api.PUT('/api/notes/{note}', { params: { path: { note: note.id }, header }, body })),
    actOf: (act) => act,
    onDone,
  })
  return (
    <>
      <NoteForm
        start={note.text}
        submitLabel="Record the correction"
        pending={correction.pending}
        onSubmit={(text, onRefused) => correction.save({ text }, onRefused)}
        onLeave={onDone}
      />
      <BothVersions correction={correction} labels={{ text: 'Note' }} />
    </>
  )
}
