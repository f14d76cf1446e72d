// Says whether this phone trusts the house, and leads on to it once it does.
const asked_every_ms = 3000
const state = document.getElementById('state')

const system = (() => {
  const agent = navigator.userAgent
  if (/iPhone|iPad/.test(agent)) return 'iphone'
  if (/Android/.test(agent)) return 'android'
  if (/Windows/.test(agent)) return 'windows'
  // An iPad passes itself off as a Mac, but has a touch screen.
  if (/Macintosh/.test(agent)) return navigator.maxTouchPoints > 1 ? 'iphone' : 'mac'
  return 'linux'
})()
document.querySelector(`[data-system=${system}]`).open = true

// Resolves to the address where the browser believes the certificate there, else rejects.
const answers = async (address) => {
  await fetch(`${address}/trusted`, { mode: 'no-cors', cache: 'no-store' })
  return address
}

const look = async () => {
  try {
    const house = await (await fetch('house.json', { cache: 'no-store' })).json()
    document.getElementById('fingerprint').textContent = house.begins_with
    const tried = await Promise.allSettled(house.addresses.map(answers))
    // The first is the one to keep: a name outlives an address.
    const found = tried.find((one) => one.status === 'fulfilled')
    if (found) {
      state.textContent = 'This phone trusts the house.'
      state.dataset.trusted = 'yes'
      document.getElementById('open').href = `${found.value}/`
      document.getElementById('lead').hidden = false
      document.getElementById('certificate').textContent = 'Take the certificate again'
      return
    }
    state.textContent = 'This phone does not know the house yet.'
  } catch {
    state.textContent = 'The house does not answer. Is this phone in its network?'
  }
  setTimeout(look, asked_every_ms)
}
look()
