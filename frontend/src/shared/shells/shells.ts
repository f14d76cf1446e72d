import type { Schemas } from '@/shared/api/client'

export type Shell = Schemas['Shell']

/** What a shell can be besides smooth. */
export const SHELLS: Shell[] = [
  'rough',
  'window',
  'nodule',
  'thin',
  'stained',
  'damp spot',
  'misshapen',
]

/** "rough and thin"; "smooth" for none. */
export const shellWords = (shells: readonly string[]): string =>
  shells.length > 0 ? shells.join(' and ') : 'smooth'
