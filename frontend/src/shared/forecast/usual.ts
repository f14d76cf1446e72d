/** °C that cabinets are set to most (assumption); the keeper types their own over it. */
export const USUAL_C = 31.5
