/** The narrowest phone, or one whose owner reads large letters: few of them go on a line. */
export const TIGHT = '@media (max-width: 20em)'

/** There, what stands side by side stands one below the other. */
export const ONE_COLUMN = { [TIGHT]: { gridTemplateColumns: 'minmax(0, 1fr)' } }
