import { Text } from '@chakra-ui/react'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { takeMoment } from '@/shared/moment/moment'
import { When } from '@/shared/moment/When'
import { Button } from '@/shared/ui/Button'
import { NoteForm } from './NoteForm'
import { NoteItem } from './NoteItem'
import { notesQuery } from './queries'

/** The notes on something by its id, and the way to write another; `quiet` beside other things. */
export function Notes({ about, quiet = false }: { about: number; quiet?: boolean }) {
  const notes = useQuery(notesQuery(about))
  const [writing, setWriting] = useState(false)
  const write = useAct(
    (body: Schemas['NoteRequest']) => answer(api.POST('/api/notes', { body })),
    ({ act }) => act,
    () => {},
  )
  return (
    <>
      {notes.data && notes.data.length > 0 && (
        <ul>
          {notes.data.map((note) => (
            <NoteItem key={note.id} note={note} />
          ))}
        </ul>
      )}
      {notes.error && <Text color="vessel">{notes.error.message}</Text>}
      {writing ? (
        <NoteForm
          submitLabel="Write it down"
          pending={write.isPending}
          when={<When label="Of" problem={write.error} />}
          onSubmit={(text, onRefused) =>
            write.mutate(
              { about, text, at: takeMoment() },
              { onSuccess: () => setWriting(false), onError: onRefused },
            )
          }
          onLeave={() => setWriting(false)}
        />
      ) : (
        <Button
          type="button"
          size="small"
          {...(quiet ? { variant: 'bare' as const, ms: -3 } : { mt: 2 })}
          _print={{ display: 'none' }}
          onClick={() => setWriting(true)}
        >
          Write a note
        </Button>
      )}
    </>
  )
}
