import { useState } from 'react'
import type { Problem, Schemas } from '@/shared/api/client'
import { useAct } from '@/shared/api/queries'
import type { Fields } from './versions'

/** Of a form that nobody had filled in when it was opened. */
export const NEW = 'new'

type OnRefused = (problem: Problem) => void

type SeenHeader = { 'If-Match': string }

/** Two versions of a form: one's own, and what somebody recorded since it was opened. */
export type Clash<Body> = { mine: Body; opened: Fields; theirs: Fields }

/**
 * A form's way to the house: it is recorded over the version that was opened. Where
 * somebody was faster, `clash` holds both versions, for BothVersions to show.
 */
export function useCorrection<Body extends object, Told>({
  revision,
  opened,
  send,
  actOf,
  onDone,
}: {
  /** Of the version the form was filled from; what is read later is not what was seen. */
  revision: string
  /** What the form would record when nothing was typed. */
  opened: Body | null
  send: (body: Body, header: SeenHeader) => Promise<Told>
  actOf: (told: Told) => Schemas['ActResponse'] | null | undefined
  /** Called without anything when what somebody else recorded was left as it is. */
  onDone: (told?: Told) => void
}) {
  const [from, setFrom] = useState({ revision, opened: (opened ?? {}) as Fields })
  const [clash, setClash] = useState<(Clash<Body> & { onRefused: OnRefused }) | null>(null)
  const record = useAct(
    ({ body, seen }: { body: Body; seen: string }) => send(body, { 'If-Match': seen }),
    actOf,
    () => {},
  )
  const save = (body: Body, onRefused: OnRefused) =>
    record.mutate(
      { body, seen: from.revision },
      {
        onSuccess: (told) => {
          setClash(null)
          onDone(told)
        },
        onError: (problem) => {
          if (!problem.current) {
            setClash(null)
            return onRefused(problem)
          }
          const theirs = problem.current.form ?? {}
          setClash({ mine: body, opened: from.opened, theirs, onRefused })
          setFrom({ revision: problem.current.revision, opened: theirs })
        },
      },
    )
  return {
    /** What is refused for another reason is said by `onRefused`, at its field. */
    save,
    /** Record what was chosen of two versions. */
    choose: (body: Body) => clash && save(body, clash.onRefused),
    /** Nothing of one's own is to be recorded after all. */
    leave: () => {
      setClash(null)
      onDone()
    },
    close: () => setClash(null),
    clash,
    pending: record.isPending,
  }
}

export type Correction<Body extends object> = Pick<
  ReturnType<typeof useCorrection<Body, unknown>>,
  'choose' | 'leave' | 'close' | 'clash' | 'pending'
>
