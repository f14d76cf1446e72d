import { useNavigate, useParams } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct, useChoices, useClutch } from '@/shared/api/queries'
import { Title, Waiting } from '@/shared/ui/page'
import { useTemperatureUnit } from '@/shared/units'
import { LayForm } from './LayForm'
import { valuesOf } from './values'

/** Correct what was recorded on lay day; the earlier values stay in the log. */
export function Component() {
  const { code = '' } = useParams()
  const clutch = useClutch(code)
  const choices = useChoices()
  const unit = useTemperatureUnit()
  const navigate = useNavigate()
  const correct = useAct(
    (body: Schemas['LayDayAsked']) =>
      answer(api.PUT('/api/clutches/{code}', { params: { path: { code } }, body })),
    (laid) => laid.act,
    () => {},
  )
  if (!clutch.data || !choices.data) {
    return <Waiting problem={clutch.error?.message ?? choices.error?.message} />
  }
  return (
    <>
      <Title>Correct {clutch.data.code}</Title>
      <LayForm
        start={valuesOf(clutch.data, unit)}
        choices={choices.data}
        submitLabel="Record the correction"
        pending={correct.isPending}
        onSubmit={(body, refuse) =>
          correct.mutate(body, {
            onSuccess: (laid) => navigate(`/clutches/${laid.code}`, { replace: true }),
            onError: refuse,
          })
        }
      />
    </>
  )
}
