import { chakra, Flex, Stack, Text } from '@chakra-ui/react'
import { useEffect, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { useAnimals, useRules, useToday } from '@/shared/api/queries'
import { store } from '@/shared/offline/store'
import { lastOpen } from '@/shared/photos/lastOpen'
import { Button } from '@/shared/ui/Button'
import { Pick } from '@/shared/ui/Pick'
import { Notice, Title, Waiting } from '@/shared/ui/page'
import { type SharedPhoto, useSharedPhotos } from './kept'
import { type PhotoPlace, placesFor } from './places'

/** Photos shared from the phone's gallery: where they belong is asked, what was open first. */
export function Component() {
  const shared = useSharedPhotos()
  const today = useToday()
  const animals = useAnimals()
  const rules = useRules()
  if (!shared.photos || !today.data || !animals.data || !rules.data) {
    const error = shared.error ?? today.error ?? animals.error ?? rules.error
    return <Waiting problem={error?.message} />
  }
  const { places, egg } = placesFor(lastOpen(), today.data, animals.data)
  if (shared.photos.length === 0) return <Nothing />
  return (
    <Sharing
      photos={shared.photos}
      places={places}
      egg={egg}
      largest={rules.data.largest_photo_bytes}
      onDone={shared.forget}
    />
  )
}

function Nothing() {
  return (
    <Stack gap={3}>
      <Title>Shared photos</Title>
      <Text maxWidth="40rem">
        No photo waits here. In your phone's gallery choose photos, share them, and tap Sandboa:
        they come here first, and you say where they belong.
      </Text>
    </Stack>
  )
}

function Sharing({
  photos,
  places,
  egg,
  largest,
  onDone,
}: {
  photos: SharedPhoto[]
  places: PhotoPlace[]
  egg: number | null
  largest: number
  onDone: (taken: SharedPhoto[]) => Promise<void>
}) {
  const navigate = useNavigate()
  const [owner, setOwner] = useState(places[0]?.owner)
  const [number, setNumber] = useState(egg)
  const place = places.find((own) => own.owner === owner)
  const fits = photos.filter(({ picture }) => picture.size <= largest)
  const many = fits.length === 1 ? 'this photo' : `these ${fits.length} photos`
  const keep = async () => {
    if (!place) return
    await store.photos.bulkAdd(
      fits.map(({ picture, takenAt }) => ({
        owner: place.owner,
        egg: place.eggs ? number : null,
        step: null,
        takenAt,
        picture,
      })),
    )
    await onDone(photos)
    navigate(place.eggs && number ? `${place.to}/eggs/${number}` : place.to, { replace: true })
  }
  return (
    <Stack gap={6}>
      <Title>Shared photos</Title>
      <Flex gap={3} wrap="wrap">
        {photos.map((photo, at) => (
          <Shown key={photo.address} photo={photo} name={`Photo ${at + 1}`} />
        ))}
      </Flex>
      {fits.length < photos.length && (
        <Notice urgent>
          {photos.length - fits.length} of them are larger than {Math.round(largest / 2 ** 20)} MB
          and are left out.
        </Notice>
      )}
      <Flex gap={3} wrap="wrap" align="center">
        <strong>{photos.length === 1 ? 'It is of' : 'They are of'}</strong>
        <Pick
          label="What they are of"
          value={String(owner ?? '')}
          options={places.map((own) => ({ value: String(own.owner), label: own.name }))}
          onPick={(picked) => {
            setOwner(Number(picked))
            setNumber(null)
          }}
        />
        {place && place.eggs > 0 && (
          <Pick
            label="Which egg"
            value={String(number ?? '')}
            options={[
              { value: '', label: 'the clutch' },
              ...Array.from({ length: place.eggs }, (_, at) => ({
                value: String(at + 1),
                label: `egg ${at + 1}`,
              })),
            ]}
            onPick={(picked) => setNumber(Number(picked) || null)}
          />
        )}
      </Flex>
      <Flex gap={3} wrap="wrap">
        <Button
          type="button"
          variant="act"
          disabled={!place || fits.length === 0}
          onClick={() => void keep()}
        >
          Keep {many}
        </Button>
        <Button type="button" onClick={() => void onDone(photos)}>
          Leave {photos.length === 1 ? 'it' : 'them'} out
        </Button>
      </Flex>
    </Stack>
  )
}

function Shown({ photo, name }: { photo: SharedPhoto; name: string }) {
  const address = useMemo(() => URL.createObjectURL(photo.picture), [photo.picture])
  useEffect(() => () => URL.revokeObjectURL(address), [address])
  return (
    <chakra.img
      src={address}
      alt={name}
      width="9rem"
      height="9rem"
      objectFit="cover"
      borderRadius="small"
      border="1px solid"
      borderColor="line"
    />
  )
}
