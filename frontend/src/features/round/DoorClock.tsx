import { Span, Strong } from '@chakra-ui/react'
import { useEffect, useState } from 'react'

/** "0:42": how long the door has been open. */
export function openFor(since: string, now: Date): string {
  const seconds = Math.max(0, Math.round((now.getTime() - Date.parse(since)) / 1000))
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}

export function DoorClock({ since }: { since: string }) {
  const [now, setNow] = useState(() => new Date())
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), 1000)
    return () => clearInterval(timer)
  }, [])
  return (
    <Span color="soft" whiteSpace="var(--one-line)">
      open <Strong color="ink">{openFor(since, now)}</Strong>
    </Span>
  )
}
