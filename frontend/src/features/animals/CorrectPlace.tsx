import { useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAnimal, useAnimals } from '@/shared/api/queries'
import { BothVersions } from '@/shared/corrections/BothVersions'
import { useCorrection } from '@/shared/corrections/useCorrection'
import { Title, Waiting } from '@/shared/ui/page'
import { AnimalForm, type AnimalValues, requestOf } from './AnimalForm'

type Page = Schemas['AnimalPageResponse']

/** Correct what is recorded of an animal; the earlier values stay in the log. */
export function Component() {
  const { animal = '' } = useParams()
  const page = useAnimal(Number(animal))
  if (!page.data) return <Waiting problem={page.error?.message} />
  return <Correcting key={animal} page={page.data} />
}

function Correcting({ page }: { page: Page }) {
  const { id, name } = page.animal
  const navigate = useNavigate()
  const animals = useAnimals().data ?? []
  const [start] = useState(() => valuesOf(page))
  const correction = useCorrection({
    revision: page.revision,
    opened: requestOf(start),
    send: (body: Schemas['AnimalRequest'], header) =>
      answer(api.PUT('/api/animals/{animal}', { params: { path: { animal: id }, header }, body })),
    actOf: (act) => act,
    onDone: () => navigate(`/animals/${id}`, { replace: true }),
  })
  return (
    <>
      <Title>Edit {name}</Title>
      <AnimalForm
        start={start}
        own={id}
        submitLabel="Record the correction"
        pending={correction.pending}
        onSubmit={correction.save}
      />
      <BothVersions
        correction={correction}
        labels={{
          hatch_year: 'Hatched in',
          traits_text: 'In your own words',
          dam: 'Its dam',
          sire: 'Its sire',
        }}
        say={(path, value) =>
          path === 'dam' || path === 'sire' ? animals.find((a) => a.id === value)?.name : undefined
        }
      />
    </>
  )
}

function valuesOf({ animal, traits_text, dam, sire }: Page): AnimalValues {
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
