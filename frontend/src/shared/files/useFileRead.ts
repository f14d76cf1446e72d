import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'

/** A file that was dropped, what was chosen about it, and what the house reads in it: nothing of it
    is stored, and it is read again with each choice. */
export function useFileRead<Choices extends object, Read>(
  what: string,
  none: Choices,
  read: (file: File, choices: Choices) => Promise<Read>,
) {
  const [file, setFile] = useState<File | null>(null)
  const [choices, setChoices] = useState(none)
  const [refused, setRefused] = useState('')
  const query = useQuery({
    queryKey: [what, file?.name, file?.size, file?.lastModified, choices],
    enabled: file !== null,
    retry: false,
    refetchInterval: false,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    queryFn: () => read(file as File, choices),
  })
  return {
    file,
    choices,
    setChoices,
    /** Why the file was refused before it was sent; "" where it was not. */
    refused,
    setRefused,
    take: (next: File | null) => {
      setFile(next)
      setChoices(none)
      setRefused('')
    },
    told: file && !query.error ? query.data : undefined,
    problem: file ? query.error?.message : undefined,
    pending: file !== null && query.isPending,
  }
}
