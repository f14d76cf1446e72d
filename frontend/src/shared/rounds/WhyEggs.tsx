import { Span } from '@chakra-ui/react'
import { Link } from 'react-router'

/** The way from what is said of eggs to the page of each, with the rule and its numbers. */
export function WhyEggs({ code, eggs }: { code: string; eggs: number[] }) {
  if (eggs.length === 0) return null
  return (
    <Span whiteSpace="var(--one-line)">
      {' '}
      Why?
      {eggs.map((number) => (
        <Link
          key={number}
          to={`/clutches/${code}/eggs/${number}`}
          aria-label={`Why, egg ${number}`}
        >
          <Span
            display="inline-block"
            minWidth="1.5em"
            textAlign="center"
            color="yolkInk"
            textDecoration="underline"
            textUnderlineOffset="3px"
          >
            {number}
          </Span>
        </Link>
      ))}
    </Span>
  )
}
