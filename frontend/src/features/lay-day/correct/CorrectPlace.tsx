import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useChoices, useClutch } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { Title, Waiting } from '@/shared/ui/page'
import { useTemperatureUnit } from '@/shared/units'
import { DamAtLaying } from './DamAtLaying'
import { LayForm } from './LayForm'
import { MixedUp } from './MixedUp'
import { Sires } from './Sires'
import { requestOf, valuesOf } from './values'

/** Correct what was recorded on lay day; the earlier values stay in the log. */
export function Component() {
  const { code = '' } = useParams()
  const clutch = useClutch(code)
  const choices = useChoices()
  if (!clutch.data || !choices.data) {
    return <Waiting problem={clutch.error?.message ?? choices.error?.message} />
  }
  return <Correcting key={code} clutch={clutch.data} choices={choices.data} />
}

function Correcting({
  clutch,
  choices,
}: {
  clutch: Schemas['ClutchResponse']
  choices: Schemas['ChoicesResponse']
}) {
  const { code } = clutch
  const unit = useTemperatureUnit()
  const navigate = useNavigate()
  const [start] = useState(() => valuesOf(clutch, unit))
  const correction = useCorrection({
    revision: clutch.revision,
    opened: requestOf(start, unit),
    send: (body: Schemas['LayDayRequest'], header) =>
      answer(api.PUT('/api/clutches/{code}', { params: { path: { code }, header }, body })),
    actOf: (laid) => laid.act,
    onDone: (laid) => navigate(`/clutches/${laid?.code ?? code}`, { replace: true }),
  })
  return (
    <>
      <Title>Edit {code}</Title>
      <LayForm
        start={start}
        choices={choices}
        submitLabel="Record the correction"
        pending={correction.pending}
        onSubmit={correction.save}
      />
      <BothVersions
        correction={correction}
        labels={{ laid_at: 'Laid', dry_mass_g: 'Dry medium', water_g: 'Water' }}
      />
      <Box mt={12}>
        <MixedUp clutch={clutch} />
        <Box mt={12}>
          <Sires clutch={clutch} />
        </Box>
        <Box mt={12}>
          <DamAtLaying code={code} dam={clutch.dam} />
        </Box>
      </Box>
    </>
  )
}
