import { chakra } from '@chakra-ui/react'
import { type ReactNode, useId } from 'react'

/** The button that takes photos, or finds them on the device. */
export function TakePhoto({
  label,
  name,
  camera = false,
  quiet = false,
  onTaken,
}: {
  label: ReactNode
  name: string
  /** Straight to the camera, one photo at a time. */
  camera?: boolean
  /** Beside other things: as a link. */
  quiet?: boolean
  onTaken: (files: File[]) => void
}) {
  const field = useId()
  return (
    <chakra.label
      htmlFor={field}
      display="inline-flex"
      alignItems="center"
      minHeight={quiet ? 'thumbSmall' : 'thumb'}
      px={quiet ? 0 : 4}
      border={quiet ? 'none' : '1.5px dashed'}
      borderColor="soft"
      fontSize={quiet ? 'small' : undefined}
      color={quiet ? 'yolkInk' : undefined}
      textDecoration={quiet ? 'underline' : undefined}
      textUnderlineOffset="3px"
      borderRadius="small"
      cursor="pointer"
      fontWeight="semibold"
      _hover={{ bg: 'faint' }}
      _focusWithin={{ outline: '3px solid', outlineColor: 'focus', outlineOffset: '2px' }}
    >
      {label}
      <chakra.input
        id={field}
        type="file"
        accept="image/*"
        multiple={!camera}
        capture={camera ? 'environment' : undefined}
        srOnly
        aria-label={name}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])]
          event.target.value = ''
          if (files.length) onTaken(files)
        }}
      />
    </chakra.label>
  )
}
