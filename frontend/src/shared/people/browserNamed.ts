import Bowser from 'bowser'

/** "Chrome on Android", of what a browser says of itself; as it stands where nothing is known. */
export function browserNamed(agent: string): string {
  if (!agent) return 'not a browser'
  const { browser, os } = Bowser.parse(agent)
  return [browser.name, os.name && `on ${os.name}`].filter(Boolean).join(' ') || agent.slice(0, 40)
}
