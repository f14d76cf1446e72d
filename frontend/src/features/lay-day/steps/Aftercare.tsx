import { Text } from '@chakra-ui/react'
import { useNavigate } from 'react-router'
import { useAfterLaying, useAnimal } from '@/shared/api/queries'
import { CareList } from '@/shared/dam-care/CareList'
import { Photos } from '@/shared/photos/Photos'
import { Waiting } from '@/shared/ui/page'
import { StepFrame } from '../StepFrame'
import type { StepProps } from '../steps'

/** What the dam needs now; the rest comes up on Today when it is due. */
export function Aftercare({ day, step, back }: StepProps) {
  const navigate = useNavigate()
  const after = useAfterLaying()
  if (!after.data) return <Waiting problem={after.error?.message} />
  const dam = after.data.find((d) => d.clutch === day.clutch)
  return (
    <StepFrame
      day={day}
      step={step}
      back={back}
      photos={dam ? <DamPhotos dam={dam.dam} /> : null}
      nextLabel={`To clutch ${day.clutch}`}
      onSubmit={(event) => {
        event.preventDefault()
        navigate(`/clutches/${day.clutch}`)
      }}
    >
      {dam ? <CareList dam={dam} /> : <p>Nothing is open for {day.state.dam}.</p>}
      <Text color="soft">Whatever is left open comes up on Today when it is due.</Text>
    </StepFrame>
  )
}

function DamPhotos({ dam }: { dam: number }) {
  const photos = useAnimal(dam).data?.photos.filter((photo) => photo.step === 'aftercare') ?? []
  return <Photos photos={photos} of={{ owner: dam, step: 'aftercare' }} />
}
