import { Box, chakra, Input, Span, Stack, Text } from '@chakra-ui/react'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useId } from 'react'
import { Link, useSearchParams } from 'react-router'
import { NoteItem } from '@/shared/notes/NoteItem'
import { foundNotesQuery, type Note, placeOf } from '@/shared/notes/queries'
import { Title } from '@/shared/ui/page'

/** Every note of the house, found by words in it or by what it is about. */
export function Component() {
  const [asked, setAsked] = useSearchParams()
  const words = asked.get('words') ?? ''
  const field = useId()
  const notes = useQuery({ ...foundNotesQuery(words), placeholderData: keepPreviousData })
  return (
    <Stack gap={5} maxWidth="53.75rem">
      <Title>Notes</Title>
      <Box maxWidth="30rem">
        <chakra.label htmlFor={field} fontWeight="semibold">
          Words in it, or what it is about
        </chakra.label>
        <Input
          id={field}
          type="search"
          mt={1}
          value={words}
          placeholder="mould 26-04"
          onChange={(event) =>
            setAsked(event.target.value ? { words: event.target.value } : {}, { replace: true })
          }
        />
      </Box>
      {notes.error && <Text color="vessel">{notes.error.message}</Text>}
      {notes.data?.length === 0 && (
        <Text color="soft">
          {words
            ? 'No note has all of these words.'
            : 'No notes yet. Write one on a clutch, an egg, a box, an animal, a pairing, a visit or a cabinet.'}
        </Text>
      )}
      {notes.data && notes.data.length > 0 && (
        <chakra.ul aria-label="Notes">
          {notes.data.map((note) => (
            <NoteItem key={note.id} note={note} about={<About note={note} />} />
          ))}
        </chakra.ul>
      )}
    </Stack>
  )
}

function About({ note }: { note: Note }) {
  const place = placeOf(note.about)
  if (place === null) return <Span fontWeight="bold">{note.about.name}</Span>
  return (
    <Link to={place}>
      <Span fontWeight="bold" textDecoration="underline" textUnderlineOffset="3px">
        {note.about.name}
      </Span>
    </Link>
  )
}
