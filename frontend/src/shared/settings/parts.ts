/** A part of Settings: what it is called, what is found in it, and whether only keepers have it. */
export type Part = { id: string; name: string; about: string; runs?: boolean }

/** In the order they are listed: what a season asks for first, what is looked up seldom last. */
export const PARTS: Part[] = [
  {
    id: 'methods',
    name: 'House methods',
    about: 'How clutches are kept: medium, closing, temperature, visits',
  },
  {
    id: 'numbers',
    name: 'Numbers',
    about: 'What the house judges by: clock, dents, water, faults, losses',
  },
  {
    id: 'people',
    name: 'People and sign-ins',
    about: 'Who may do what, passphrases, who signed in when',
    runs: true,
  },
  {
    id: 'phones',
    name: 'Phones and calendar',
    about: 'Addresses and the code to scan, the calendar’s link, degrees on this device',
  },
  {
    id: 'alarms',
    name: 'Alarm notifications',
    about: 'Alarms by e-mail, on phones, to other services',
  },
  {
    id: 'devices',
    name: 'Devices and tokens',
    about: 'Loggers, sensors and gateways that send readings',
  },
  {
    id: 'backups',
    name: 'Backups, export and import',
    about: 'Copies of the house and the way back to one, the whole house as a package',
    runs: true,
  },
  {
    id: 'record',
    name: 'How good the forecasts were',
    about: 'Forecasts and standings against what became of the eggs',
  },
  {
    id: 'log',
    name: 'Program log',
    about: 'What went wrong and when, for whoever looks after the program',
    runs: true,
  },
]

/** Sections that had an address of their own when Settings was one page, by the part they are in. */
const PART_OF: Record<string, string> = {
  security: 'people',
  temperatures: 'phones',
  calendar: 'phones',
  messengers: 'alarms',
  'whole-house': 'backups',
  scores: 'record',
}

/** Where a mark in the old one page of Settings leads now: a part, or a number. */
export function addressOf(mark: string): string {
  const part = PARTS.find(({ id }) => id === mark)?.id ?? PART_OF[mark]
  return part ? `/settings/${part}` : `/settings/numbers#${encodeURIComponent(mark)}`
}

/** Parts whose name or contents hold every word that is sought. */
export function foundParts(parts: Part[], sought: string): Part[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean)
  return parts.filter(({ name, about }) => {
    const text = `${name} ${about}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
}
