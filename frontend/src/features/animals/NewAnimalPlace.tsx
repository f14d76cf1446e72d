import { useNavigate } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { Title } from '@/shared/ui/page'
import { AnimalForm, type AnimalValues } from './AnimalForm'

const EMPTY: AnimalValues = {
  role: 'dam',
  name: '',
  code: '',
  hatchYear: '',
  traitsText: '',
  traits: [],
  dam: '',
  sire: '',
  retired: false,
}

/** Add a dam or a sire. */
export function Component() {
  const navigate = useNavigate()
  const add = useAct(
    (body: Schemas['AnimalRequest']) => answer(api.POST('/api/animals', { body })),
    (added) => added.act,
    () => {},
  )
  return (
    <>
      <Title>Add an animal</Title>
      <AnimalForm
        start={EMPTY}
        submitLabel="Add it"
        pending={add.isPending}
        onSubmit={(body, refuse) =>
          add.mutate(body, {
            onSuccess: ({ id }) => navigate(`/animals/${id}`, { replace: true }),
            onError: refuse,
          })
        }
      />
    </>
  )
}
