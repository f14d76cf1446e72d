import { HStack, Span } from '@chakra-ui/react'
import { useLiveQuery } from 'dexie-react-hooks'
import { useState } from 'react'
import { useRules } from '@/shared/api/queries'
import { store } from '@/shared/offline/store'
import { TakePhoto } from '@/shared/photos/TakePhoto'

/** Takes a photo of the egg; it is kept on the device until the house has it. */
export function EggCamera({ owner, egg, torch }: { owner: number; egg: number; torch: boolean }) {
  const most = useRules().data?.largest_photo_bytes
  const [refused, setRefused] = useState('')
  const waiting =
    useLiveQuery(
      () => store.photos.filter((p) => p.owner === owner && p.egg === egg).count(),
      [owner, egg],
    ) ?? 0
  const keep = async (files: File[]) => {
    const fits = files.filter((file) => !most || file.size <= most)
    setRefused(fits.length < files.length ? 'A photo was too large and was left out.' : '')
    for (const file of fits) {
      await store.photos.add({
        owner,
        egg,
        step: torch ? 'candling' : null,
        takenAt: new Date().toISOString(),
        picture: new Blob([await file.arrayBuffer()], { type: file.type }),
      })
    }
  }
  return (
    <HStack gap={3} wrap="wrap">
      <TakePhoto
        label={torch ? 'Photo by torch' : 'Photo of this egg'}
        name={`Photo of egg ${egg}`}
        camera
        onTaken={(files) => void keep(files)}
      />
      {waiting > 0 && <Span color="soft">{waiting} kept on this device</Span>}
      {refused && (
        <Span role="alert" color="vessel" fontWeight="semibold">
          {refused}
        </Span>
      )}
    </HStack>
  )
}
