import { chakra } from '@chakra-ui/react'
import { buttonRecipe } from '../theme/recipes'

/** The house's button: `act` (amber, one a view at most), `plain`, `bare`. */
export const Button = chakra('button', buttonRecipe)
