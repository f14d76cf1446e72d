import { Text } from '@chakra-ui/react'
import { lazy, Suspense, useState } from 'react'
import type { Schemas } from '@/shared/api/client'
import { Button } from '@/shared/ui/Button'
import { Waiting } from '@/shared/ui/page'

const OriginForm = lazy(() =>
  import('./OriginForm').then(({ OriginForm }) => ({ default: OriginForm })),
)

/** What is known of a clutch that nobody saw laid, and the way to say it. */
export function Origin({ clutch }: { clutch: Schemas['ClutchResponse'] }) {
  const [open, setOpen] = useState(false)
  return (
    <div>
      {clutch.origin?.words.map((words) => (
        <Text key={words}>{words}</Text>
      ))}
      {open ? (
        <Suspense fallback={<Waiting />}>
          <OriginForm clutch={clutch} onDone={() => setOpen(false)} />
        </Suspense>
      ) : (
        <Button type="button" variant="bare" size="small" onClick={() => setOpen(true)}>
          {clutch.origin ? 'Edit where they come from' : 'Nobody saw them laid'}
        </Button>
      )}
    </div>
  )
}
