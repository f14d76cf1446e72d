import { Box, chakra } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { under } from '@/shared/api/under'
import { Button } from '@/shared/ui/Button'

/** Moments of one picture, below one another, and how long each is seen, ms. */
const FRAMES = 3
const FRAME_MS = 450
/** A press shorter than this keeps the torch on until the next one, ms. */
const TAP_MS = 350

/** An egg by torch, its picture at a path: dark until the torch is held, and never quite clear. */
export function Torch({ path }: { path: string }) {
  const [held, setHeld] = useState(false)
  const [missing, setMissing] = useState(false)
  const since = useRef(0)
  const frame = useFrame(held)
  const src = under(path)
  const press = (now: number) => {
    since.current = held ? 0 : now
    setHeld(!held)
  }
  const release = (now: number) => {
    if (since.current > 0 && now - since.current >= TAP_MS) setHeld(false)
  }
  return (
    <div>
      <Box
        bg="black"
        borderRadius="small"
        overflow="hidden"
        position="relative"
        aspectRatio={360 / 300}
        maxWidth="26rem"
        data-lit={held || undefined}
      >
        <chakra.img
          src={src}
          alt={held ? 'The egg by torch' : ''}
          position="absolute"
          left={0}
          width="100%"
          height={`${FRAMES * 100}%`}
          top={`${-100 * frame}%`}
          opacity={held ? 1 : 0}
          draggable={false}
          onError={() => setMissing(true)}
        />
        {!held && (
          <Box
            position="absolute"
            inset={0}
            display="grid"
            placeItems="center"
            color="#b9a79a"
            textAlign="center"
            px={4}
          >
            {missing ? 'Its picture is out of reach.' : 'Dark. Hold the torch.'}
          </Box>
        )}
      </Box>
      <Button
        type="button"
        mt={2}
        width="100%"
        maxWidth="26rem"
        aria-pressed={held}
        touchAction="none"
        userSelect="none"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId)
          press(event.timeStamp)
        }}
        onPointerUp={(event) => release(event.timeStamp)}
        onPointerCancel={() => setHeld(false)}
        onContextMenu={(event) => event.preventDefault()}
        onKeyDown={(event) => {
          if ((event.key === ' ' || event.key === 'Enter') && !event.repeat) press(event.timeStamp)
          if (event.key === ' ' || event.key === 'Enter') event.preventDefault()
        }}
        onKeyUp={(event) => {
          if (event.key === ' ' || event.key === 'Enter') release(event.timeStamp)
        }}
      >
        {held ? 'Torch on' : 'Hold the torch'}
      </Button>
    </div>
  )
}

/** Which moment is seen: they follow one another while the torch is held. */
function useFrame(held: boolean): number {
  const [frame, setFrame] = useState(0)
  useEffect(() => {
    if (!held) return
    const timer = setInterval(() => setFrame((at) => (at + 1) % FRAMES), FRAME_MS)
    return () => {
      clearInterval(timer)
      setFrame(0)
    }
  }, [held])
  return frame
}
