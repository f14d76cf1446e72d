import { Span } from '@chakra-ui/react'
import { Link } from 'react-router'
import { eggPath } from '../eggNames'

/** The way from what is said of eggs to the page of each, with the rule and its numbers. */
export function WhyEggs({ code, eggs }: { code: string; eggs: string[] }) {
  if (eggs.length === 0) return null
  return (
    <span>
      {' '}
      Why?{' '}
      {eggs.map((name) => (
        <Link key={name} to={eggPath(name, code)} aria-label={`Why, egg ${name}`}>
          <Span
            display="inline-block"
            minWidth="1.5em"
            paddingInlineEnd="0.4em"
            textAlign="center"
            color="yolkInk"
            textDecoration="underline"
            textUnderlineOffset="3px"
          >
            {name}
          </Span>
        </Link>
      ))}
    </span>
  )
}
