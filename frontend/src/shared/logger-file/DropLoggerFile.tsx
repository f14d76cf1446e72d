import { useRules } from '../api/queries'
import { DropFile } from '../files/DropFile'
import { Fetching } from '../ui/page'

/** Takes a logger's file, as large as the house takes one. */
export function DropLoggerFile(told: {
  file: File | null
  onFile: (file: File) => void
  onRefused: (reason: string) => void
}) {
  const rules = useRules()
  // Before the limit is known, a file too large would be sent in vain.
  if (!rules.data) return <Fetching problem={rules.error?.message} />
  return <DropFile {...told} what="logger's file" largest={rules.data.largest_file_bytes} />
}
