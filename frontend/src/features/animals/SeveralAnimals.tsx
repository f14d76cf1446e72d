import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { SeveralBar } from '@/shared/many/SeveralBar'
import type { Several } from '@/shared/many/useSeveral'
import { Button } from '@/shared/ui/Button'
import type { Animal } from './narrowing'

/** What can be said of several animals at once. */
export function SeveralAnimals({
  several,
  animals,
}: {
  several: Several<number>
  /** Those the lists show. */
  animals: Animal[]
}) {
  const chosen = animals.filter(({ id }) => several.chosen.includes(id))
  const breeding = chosen.filter(({ retired }) => !retired)
  const resting = chosen.filter(({ retired }) => retired)
  const retire = useAct(
    (body: Schemas['RetirementsRequest']) => answer(api.POST('/api/animals/retirements', { body })),
    (act) => act,
  )
  const say = (of: Animal[], retired: boolean) =>
    retire.mutate({ animals: of.map(({ id }) => id), retired }, { onSuccess: several.stop })
  return (
    <SeveralBar several={several} shown={animals.length}>
      <Button
        flexShrink={0}
        px={4}
        disabled={breeding.length === 0 || retire.isPending}
        onClick={() => say(breeding, true)}
      >
        Retire {breeding.length || ''}
      </Button>
      {resting.length > 0 && (
        <Button
          flexShrink={0}
          px={4}
          disabled={retire.isPending}
          onClick={() => say(resting, false)}
        >
          Breed {resting.length} again
        </Button>
      )}
    </SeveralBar>
  )
}
