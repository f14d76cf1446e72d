import { lazy, Suspense, useState } from 'react'
import type { Schemas } from '@/shared/api/client'
import { Button } from '@/shared/ui/Button'
import { Waiting } from '@/shared/ui/page'

const BoxForm = lazy(() => import('./BoxForm').then(({ BoxForm }) => ({ default: BoxForm })))

/** The way to correct how a box was set up. */
export function CorrectBox({ box }: { box: Schemas['BoxResponse'] }) {
  const [open, setOpen] = useState(false)
  if (!open) {
    return (
      <Button type="button" variant="bare" size="small" onClick={() => setOpen(true)}>
        Edit box {box.name}
      </Button>
    )
  }
  return (
    <Suspense fallback={<Waiting />}>
      <BoxForm box={box} onDone={() => setOpen(false)} />
    </Suspense>
  )
}
