import { chakra, FileUpload } from '@chakra-ui/react'
import { useRules } from '../api/queries'
import { Waiting } from '../ui/page'

/** Takes one file by drop, tap or key; a file too large is refused before it is sent. */
export function DropFile({
  file,
  onFile,
  onRefused,
}: {
  file: File | null
  onFile: (file: File) => void
  onRefused: (reason: string) => void
}) {
  const rules = useRules()
  // Before the limit is known, a file too large would be sent in vain.
  if (!rules.data) return <Waiting problem={rules.error?.message} />
  const largest = rules.data.largest_file_bytes
  return (
    <FileUpload.Root
      maxFiles={1}
      maxFileSize={largest}
      onFileAccept={({ files }) => files[0] && onFile(files[0])}
      onFileReject={({ files }) => {
        const refused = files[0]
        if (!refused) return
        const mb = Math.round(refused.file.size / 1e6)
        onRefused(
          refused.errors.includes('FILE_TOO_LARGE')
            ? `${refused.file.name} has ${mb} MB; a logger's file has at most ${Math.round(largest / 1e6)}. Nothing was sent.`
            : `${refused.file.name} cannot be taken.`,
        )
      }}
    >
      <FileUpload.HiddenInput aria-label="Logger's CSV file" />
      <FileUpload.Dropzone
        aria-label={
          file
            ? `${file.name} drop another to replace it`
            : 'Drop a CSV file here or tap to choose one. Nothing is stored yet.'
        }
      >
        <chakra.strong>{file ? file.name : 'Drop a CSV file here'}</chakra.strong>{' '}
        <chakra.span color="soft">
          {file ? 'drop another to replace it' : 'or tap to choose one. Nothing is stored yet.'}
        </chakra.span>
      </FileUpload.Dropzone>
    </FileUpload.Root>
  )
}
