import { Box, chakra, Stack } from '@chakra-ui/react'
import type { Schemas } from '@/shared/api/client'
import { under } from '@/shared/api/under'
import { day } from '@/shared/dates'
import { Photos } from '@/shared/photos/Photos'

type Photo = Schemas['PhotoResponse']

/** The photos of each day, in the order of the days. */
export function byDay(photos: Photo[]): [string, Photo[]][] {
  const days = new Map<string, Photo[]>()
  for (const photo of [...photos].sort((a, b) => a.taken_at.localeCompare(b.taken_at))) {
    const key = day(photo.taken_at)
    days.set(key, [...(days.get(key) ?? []), photo])
  }
  return [...days]
}

/** The same egg day by day, side by side at one scale; those by torch on black. */
export function PhotosByDay({ page }: { page: Schemas['EggPageResponse'] }) {
  const days = byDay(page.photos)
  return (
    <>
      {days.length > 0 && (
        <chakra.ol
          display="flex"
          gap={4}
          overflowX="auto"
          pb={3}
          mb={2}
          tabIndex={0}
          aria-label="Photos side by side"
        >
          {days.map(([date, photos]) => (
            <li key={date}>
              <Box fontWeight="bold">{date}</Box>
              <Stack gap={2}>
                {photos.map((photo) => (
                  <Plate key={photo.id} photo={photo} egg={page.egg.number} />
                ))}
              </Stack>
            </li>
          ))}
        </chakra.ol>
      )}
      <Photos photos={[]} of={{ owner: page.clutch_id, egg: page.egg.number }} />
    </>
  )
}

/** Every plate has the same width, so that the same egg is as large on each day. */
function Plate({ photo, egg }: { photo: Photo; egg: number }) {
  const torch = photo.step === 'candling' || photo.step === 'eggs'
  return (
    <chakra.figure margin={0} width="13.75rem" bg={torch ? 'plate' : 'sheet'}>
      <a href={under(`/api/photos/${photo.file}.jpg`)} target="_blank" rel="noreferrer">
        <chakra.img
          src={under(`/api/photos/${photo.file}.jpg?small=true`)}
          alt={`Egg ${egg}, ${day(photo.taken_at)}${torch ? ', by torch' : ''}`}
          width="13.75rem"
          height="10.313rem"
          objectFit="contain"
          display="block"
        />
      </a>
      {torch && (
        <chakra.figcaption fontSize="fine" color="soft" px={2}>
          by torch
        </chakra.figcaption>
      )}
    </chakra.figure>
  )
}
