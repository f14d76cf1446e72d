import { chakra, Flex, Span } from '@chakra-ui/react'
import { type ReactNode, useEffect, useRef, useState } from 'react'

export type Part = { id: string; name: string }

/** Room under the bar for the heading that was jumped to. */
const ROOM = '6.5rem'

/** The parts of a long page, jumped to from wherever one is, beside what needs doing now. */
export function PartsBar({
  of,
  parts,
  children,
}: {
  /** What the page is about, like "26-04". */
  of: string
  parts: Part[]
  /** What needs doing, in one line: it stays in view once its place on the page is left. */
  children?: ReactNode
}) {
  useEffect(() => {
    const page = document.documentElement.style
    page.setProperty('scroll-padding-top', ROOM)
    return () => void page.removeProperty('scroll-padding-top')
  }, [])
  const place = useRef<HTMLDivElement>(null)
  const [left, setLeft] = useState(false)
  useEffect(() => {
    const seen = new IntersectionObserver(([entry]) => setLeft(entry?.isIntersecting === false))
    if (place.current) seen.observe(place.current)
    return () => seen.disconnect()
  }, [])
  return (
    <>
      <div ref={place} style={{ marginBottom: '-2rem' }} />
      <Flex
        position="sticky"
        top={0}
        zIndex={3}
        bg="paper"
        borderBottom="1.5px solid"
        borderColor="line"
        columnGap={4}
        align="center"
        wrap={{ base: 'wrap', lg: 'nowrap' }}
        _print={{ display: 'none' }}
      >
        {left && children && (
          <Span
            flex={{ base: '1 1 100%', lg: '1 1 auto' }}
            minWidth={0}
            whiteSpace="nowrap"
            overflow="hidden"
            textOverflow="ellipsis"
            pt={{ base: 2, lg: 0 }}
          >
            {children}
          </Span>
        )}
        <chakra.nav aria-label={`Parts of ${of}`} minWidth={0} overflowX="auto" tabIndex={-1}>
          <chakra.ul display="flex" columnGap={1}>
            {parts.map(({ id, name }) => (
              <li key={id}>
                <chakra.a
                  href={`#${id}`}
                  display="inline-flex"
                  alignItems="center"
                  minHeight="thumbSmall"
                  px={2}
                  color="yolkInk"
                  fontWeight="semibold"
                  whiteSpace="nowrap"
                  _hover={{ textDecoration: 'underline' }}
                >
                  {name}
                </chakra.a>
              </li>
            ))}
          </chakra.ul>
        </chakra.nav>
      </Flex>
    </>
  )
}
