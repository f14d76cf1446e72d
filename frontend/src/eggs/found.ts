/** What was found in an opened egg, by kind (core.causes.findings). */
export type Found = Partial<Record<string, string[]>>
