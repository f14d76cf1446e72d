import { Box, chakra, Dialog, Flex, Input, Portal, Span, Text } from '@chakra-ui/react'
import { keepPreviousData, queryOptions, useQuery, useQueryClient } from '@tanstack/react-query'
import { type KeyboardEvent, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { answer, api } from '@/shared/api/client'
import { mayRun, useSession } from '@/shared/people/session'
import { Button } from '@/shared/ui/Button'
import { type Found, placesFound } from './placesFound'

/** Results told at once. */
const MOST = 12

const KIND_WORDS: Record<string, string> = {
  act: 'do',
  clutch: 'clutch',
  egg: 'egg',
  box: 'box',
  animal: 'animal',
  cabinet: 'cabinet',
  probe: 'probe',
  note: 'note',
  place: 'place',
  setting: 'setting',
}

const foundQuery = (words: string) =>
  queryOptions({
    queryKey: ['found', words],
    enabled: words !== '',
    queryFn: () => answer(api.GET('/api/found', { params: { query: { words, limit: MOST } } })),
    placeholderData: keepPreviousData,
    refetchInterval: false,
  })

/** One field that finds anything of the house, from anywhere. */
export function FindDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(change) => !change.open && onClose()}
      lazyMount
      unmountOnExit
      scrollBehavior="inside"
      placement="top"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner placeItems="start center">
          <Dialog.Content display="flex" flexDirection="column" p={{ base: 4, md: 6 }}>
            <Finding onClose={onClose} />
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  )
}

function Finding({ onClose }: { onClose: () => void }) {
  const [sought, setSought] = useState('')
  const words = sought.trim().replace(/\s+/g, ' ')
  const runs = mayRun(useSession().data)
  const asked = useQuery(foundQuery(words))
  const list = useRef<HTMLUListElement>(null)
  const navigate = useNavigate()
  const client = useQueryClient()
  // What the house knows of what was typed before stands until it has answered anew.
  const told: Found[] = words ? [...(asked.data ?? []), ...placesFound(words, runs)] : []
  // Whoever types quickly means what is typed, not what still stands below it.
  const follow = async () => {
    const answered = await client.ensureQueryData(foundQuery(words)).catch(() => [])
    const [first] = [...answered, ...placesFound(words, runs)]
    if (!words || !first) return
    onClose()
    navigate(first.place)
  }
  const links = () => [...(list.current?.querySelectorAll('a') ?? [])]
  const step = (event: KeyboardEvent<HTMLElement>) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    if (!by) return
    event.preventDefault()
    const all = links()
    const at = all.indexOf(document.activeElement as HTMLAnchorElement) + by
    if (at < 0) document.getElementById('find')?.focus()
    else all[Math.min(at, all.length - 1)]?.focus()
  }
  return (
    <Box display="flex" flexDirection="column" minHeight={0} onKeyDown={step}>
      <Dialog.Title mb={2}>
        <chakra.label htmlFor="find">Find anything</chakra.label>
      </Dialog.Title>
      <Flex gap={2}>
        <Input
          id="find"
          type="search"
          autoFocus
          autoComplete="off"
          enterKeyHint="go"
          value={sought}
          placeholder="26-04, 26-04/3, Sorrel, top up 26-04"
          onChange={(event) => setSought(event.target.value)}
          onKeyDown={(event) => event.key === 'Enter' && void follow()}
        />
        <Button onClick={onClose}>Close</Button>
      </Flex>
      {asked.error && words && (
        <Text color="soft" mt={3}>
          The house does not answer: only places are found.
        </Text>
      )}
      {words && told.length === 0 && !asked.isFetching && (
        <Text mt={3}>
          Nothing is called so. Try the code of a clutch, the name of an animal or a box, a word of
          a note.
        </Text>
      )}
      <Text role="status" srOnly>
        {words && !asked.isFetching ? `${told.length} found` : ''}
      </Text>
      <chakra.ul ref={list} aria-label="Found" mt={3} overflowY="auto" minHeight={0}>
        {told.map((found) => (
          <li key={`${found.kind} ${found.place} ${found.name}`}>
            <Line found={found} onFollow={onClose} />
          </li>
        ))}
      </chakra.ul>
    </Box>
  )
}

function Line({ found, onFollow }: { found: Found; onFollow: () => void }) {
  return (
    <Link to={found.place} onClick={onFollow}>
      <Span
        display="grid"
        gridTemplateColumns="minmax(0, 1fr) auto"
        columnGap={4}
        alignItems="baseline"
        minHeight="thumbSmall"
        alignContent="center"
        px={2}
        py={1}
        borderTop="1px solid"
        borderColor="line"
        _hover={{ bg: 'faint' }}
      >
        <Span overflowWrap="anywhere">
          <Span fontWeight="bold">{found.name}</Span>{' '}
          <Span color="soft" fontSize="small">
            {found.about}
          </Span>
        </Span>
        <Span color="soft" fontSize="fine">
          {KIND_WORDS[found.kind] ?? found.kind}
        </Span>
      </Span>
    </Link>
  )
}
