import { Link } from 'react-router'
import { answer, api, type Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import { SeveralBar } from '@/shared/many/SeveralBar'
import type { Several } from '@/shared/many/useSeveral'
import { MethodMenu } from '@/shared/method/MethodMenu'
import { Button } from '@/shared/ui/Button'
import type { RoundBox } from './queries'

/** What can be done with several boxes without opening them. */
export function SeveralBoxes({
  several,
  boxes,
  kind,
}: {
  several: Several<string>
  /** Those the list shows. */
  boxes: RoundBox[]
  /** The one need that the list is narrowed to; without it every reason is put off. */
  kind: Schemas['DueKind'] | null
}) {
  const chosen = boxes.filter(({ name }) => several.chosen.includes(name))
  const reasons = chosen.flatMap((box) =>
    box.due
      .filter((due) => kind === null || due.kind === kind)
      .map((due) => ({ box: box.name, kind: due.kind })),
  )
  const codes = [...new Set(chosen.flatMap(({ clutches }) => clutches.map(({ code }) => code)))]
  const putOff = useAct(
    (body: Schemas['PostponementsRequest']) =>
      answer(api.POST('/api/postponements/several', { body })),
    (act) => act,
  )
  return (
    <SeveralBar several={several} shown={boxes.length}>
      <Button
        flexShrink={0}
        px={4}
        variant="act"
        disabled={reasons.length === 0 || putOff.isPending}
        onClick={() => putOff.mutate({ reasons, days: 1 }, { onSuccess: several.stop })}
      >
        Later, in a day
      </Button>
      <Button flexShrink={0} px={4} asChild disabled={codes.length === 0}>
        <Link
          to={`/labels?clutches=${codes.map(encodeURIComponent).join(',')}`}
          aria-disabled={codes.length === 0}
        >
          Cards and labels
        </Link>
      </Button>
      <MethodMenu clutches={codes} onDone={several.stop} />
    </SeveralBar>
  )
}
