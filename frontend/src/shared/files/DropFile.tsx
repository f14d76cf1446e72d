import { FileUpload, Span, Strong } from '@chakra-ui/react'

/** Takes one file by drop, tap or key; a file too large is refused before it is sent. */
export function DropFile({
  file,
  what,
  largest,
  onFile,
  onRefused,
}: {
  file: File | null
  /** What kind of file is wanted, after "a". */
  what: string
  largest: number
  onFile: (file: File) => void
  onRefused: (reason: string) => void
}) {
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
            ? `${refused.file.name} has ${mb} MB; a ${what} has at most ${Math.round(largest / 1e6)}. Nothing was sent.`
            : `${refused.file.name} cannot be taken.`,
        )
      }}
    >
      <FileUpload.HiddenInput aria-label={`${what.charAt(0).toUpperCase()}${what.slice(1)}`} />
      <FileUpload.Dropzone
        aria-label={
          file
            ? `${file.name} drop another to replace it`
            : `Drop a ${what} here or tap to choose one. Nothing is stored yet.`
        }
      >
        <Strong>{file ? file.name : `Drop a ${what} here`}</Strong>{' '}
        <Span color="soft">
          {file ? 'drop another to replace it' : 'or tap to choose one. Nothing is stored yet.'}
        </Span>
      </FileUpload.Dropzone>
    </FileUpload.Root>
  )
}
