import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { Button } from '@/shared/ui/Button'
import { LogOf } from './LogOf'

/** The log of something that has no page of its own: a box, a probe. */
export function LogToggle({ about, of }: { about: number; of: string }) {
  const [open, setOpen] = useState(false)
  return (
    <Box mt={2}>
      <Button
        type="button"
        variant="bare"
        size="small"
        ms={-3}
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        Log of {of}
      </Button>
      {open && <LogOf about={about} />}
    </Box>
  )
}
