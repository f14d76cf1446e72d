import { chakra, HStack, Text } from '@chakra-ui/react'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { answer, api, type Problem, problemOf, type Schemas } from '@/shared/api/client'
import { useRules, useUndo } from '@/shared/api/queries'
import { readAgain } from '@/shared/api/readAgain'
import { readerHeaders } from '@/shared/api/readerHeaders'
import { under } from '@/shared/api/under'
import { dayAndTime } from '@/shared/dates'
import { takeMoment } from '@/shared/moment/moment'
import { sentence } from '@/shared/sentence'
import { showAct, showProblem } from '@/shared/ui/toasts'
import { TakePhoto } from './TakePhoto'

type Photo = Schemas['PhotoResponse']

/** What a photo is of: a lay day, clutch or animal by id, one of its eggs, at a step. */
export type PhotoOf = { owner: number; egg?: number; step?: string }

async function upload(file: File, of: PhotoOf): Promise<Schemas['PhotoAddedResponse']> {
  const query = new URLSearchParams({ owner: String(of.owner) })
  if (of.step) query.set('step', of.step)
  if (of.egg) query.set('egg', String(of.egg))
  const taken = takeMoment()
  if (taken) query.set('taken_at', taken)
  const response = await fetch(under(`/api/photos?${query}`), {
    method: 'POST',
    headers: readerHeaders(),
    body: file,
  })
  const body = await response.json().catch(() => null)
  if (!response.ok) throw problemOf(body, response.status)
  return body
}

/** Photos of something, small, and the button that takes another. */
export function Photos({
  photos,
  of,
  quiet = false,
}: {
  photos: Photo[]
  of: PhotoOf
  /** Beside other things: the button is a link. */
  quiet?: boolean
}) {
  const client = useQueryClient()
  const undo = useUndo()
  const most = useRules().data?.largest_photo_bytes
  const add = useMutation<string[], Problem, File[]>({
    // One that is refused does not keep the others out; each is named.
    mutationFn: async (files) => {
      const refused: string[] = []
      for (const file of files) {
        if (most && file.size > most) {
          refused.push(`${file.name}: larger than ${Math.round(most / 2 ** 20)} MB.`)
          continue
        }
        try {
          const { act } = await upload(file, of)
          showAct(act.summary, () => undo.mutate(act.id))
        } catch (problem) {
          const why = (problem as Problem).detail ?? 'did not arrive'
          refused.push(`${file.name}: ${sentence(why)}`)
        }
      }
      return refused
    },
    onSettled: () => readAgain(client),
  })
  return (
    <HStack wrap="wrap" gap={2}>
      {photos.map((photo) => (
        <Picture key={photo.id} photo={photo} />
      ))}
      <TakePhoto
        label={add.isPending ? 'Keeping the photo\u2026' : 'Add a photo'}
        quiet={quiet}
        name={of.egg ? `Photo of egg ${of.egg}` : 'Photo'}
        onTaken={(files) => add.mutate(files)}
      />
      {add.data?.map((refusal) => (
        <Text key={refusal} role="alert" color="vessel" fontWeight="semibold" width="100%">
          {refusal}
        </Text>
      ))}
    </HStack>
  )
}

/** A photo, small, that opens large and can be taken away. */
export function Picture({ photo }: { photo: Photo }) {
  const client = useQueryClient()
  const undo = useUndo()
  const take = useMutation<Schemas['ActResponse'], Problem, void>({
    mutationFn: () =>
      answer(api.DELETE('/api/photos/{photo}', { params: { path: { photo: photo.id } } })),
    onSuccess: (act) => {
      void readAgain(client)
      showAct(act.summary, () => undo.mutate(act.id))
    },
    onError: (problem) => showProblem(problem.detail),
  })
  const of = photo.egg ? `Egg ${photo.egg}` : 'Photo'
  return (
    <chakra.figure position="relative" margin={0}>
      <a href={under(`/api/photos/${photo.file}.jpg`)} target="_blank" rel="noreferrer">
        <chakra.img
          src={under(`/api/photos/${photo.file}.jpg?small=true`)}
          alt={`${of}, ${dayAndTime(photo.taken_at)}`}
          height="6rem"
          maxWidth="10.625rem"
          objectFit="cover"
          borderRadius="small"
          display="block"
        />
      </a>
      <chakra.button
        type="button"
        aria-label={`Take away: ${of}, ${dayAndTime(photo.taken_at)}`}
        title="Take away"
        onClick={() => take.mutate()}
        position="absolute"
        top={1}
        right={1}
        width="2rem"
        height="2rem"
        borderRadius="full"
        bg="paper"
        color="ink"
        fontWeight="heavy"
        cursor="pointer"
      >
        ×
      </chakra.button>
    </chakra.figure>
  )
}
