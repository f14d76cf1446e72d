import { useNavigate, useParams } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct, useAnimal } from '@/shared/api/queries'
import { Title, Waiting } from '@/shared/ui/page'
import { AnimalForm, type AnimalValues } from './AnimalForm'

/** Correct what is recorded of an animal; the earlier values stay in the log. */
export function Component() {
  const { animal = '' } = useParams()
  const page = useAnimal(Number(animal))
  const navigate = useNavigate()
  const correct = useAct(
    (body: Schemas['AnimalAsked']) =>
      answer(
        api.PUT('/api/animals/{animal}', { params: { path: { animal: Number(animal) } }, body }),
      ),
    (act) => act,
    () => {},
  )
  if (!page.data) return <Waiting problem={page.error?.message} />
  return (
    <>
      <Title>Correct {page.data.animal.name}</Title>
      <AnimalForm
        start={valuesOf(page.data)}
        own={page.data.animal.id}
        submitLabel="Record the correction"
        pending={correct.isPending}
        onSubmit={(body, refuse) =>
          correct.mutate(body, {
            onSuccess: () => navigate(`/animals/${animal}`, { replace: true }),
            onError: refuse,
          })
        }
      />
    </>
  )
}

function valuesOf({ animal, traits_text, dam, sire }: Schemas['AnimalPageTold']): AnimalValues {
  return {
    role: animal.role as AnimalValues['role'],
    name: animal.name,
    code: animal.code ?? '',
    hatchYear: animal.hatch_year?.toString() ?? '',
    traitsText: traits_text,
    traits: animal.traits as AnimalValues['traits'],
    dam: dam?.toString() ?? '',
    sire: sire?.toString() ?? '',
    retired: animal.retired,
  }
}
