import { queryOptions } from '@tanstack/react-query'
import { answer, api, type Schemas } from '@/shared/api/client'

export type Note = Schemas['NoteResponse']

/** Notes on one thing, newest first. */
export const notesQuery = (about: number) =>
  queryOptions({
    queryKey: ['notes', about],
    queryFn: () => answer(api.GET('/api/notes', { params: { query: { about } } })),
  })

/** Notes in which every one of the words stands; all of them for none. */
export const foundNotesQuery = (words: string) =>
  queryOptions({
    queryKey: ['notes', 'found', words],
    queryFn: () => answer(api.GET('/api/notes', { params: { query: { words } } })),
  })

/** Where what a note is about is shown; null where it has no page. */
export function placeOf({ kind, clutch, egg, box, cabinet, animal, id }: Note['about']) {
  if (kind === 'visit') return `/visits/${id}`
  if (egg !== null && clutch !== null) return `/clutches/${clutch}/eggs/${egg}`
  if (clutch !== null) return `/clutches/${clutch}`
  if (box !== null) return `/round/${encodeURIComponent(box)}`
  if (cabinet !== null) return `/cabinets/${encodeURIComponent(cabinet)}`
  return animal === null ? null : `/animals/${animal}`
}
