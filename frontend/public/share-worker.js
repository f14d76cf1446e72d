// Beside the worker that keeps the application: takes photos shared to it from a phone's gallery.
// They are kept until the page asks where they belong; nothing of them is sent here. Another site
// can make a browser ask for this too, so the page shows them first and the keeper decides.
const KEPT = 'shared photos'
const MOST = 20

self.addEventListener('fetch', (event) => {
  const here = new URL('share', self.registration.scope)
  const asked = new URL(event.request.url)
  if (event.request.method === 'POST' && asked.pathname === here.pathname) {
    event.respondWith(keep(event.request))
  }
})

async function keep(request) {
  const form = await request.formData()
  const photos = form.getAll('photos').filter((one) => one.type?.startsWith('image/'))
  const kept = await caches.open(KEPT)
  for (const [place, photo] of photos.slice(0, MOST).entries()) {
    const name = new URL(`shared/${Date.now()}-${place}`, self.registration.scope)
    const headers = {
      'Content-Type': photo.type,
      'Last-Modified': new Date(photo.lastModified || Date.now()).toUTCString(),
    }
    await kept.put(name, new Response(photo, { headers }))
  }
  return Response.redirect(new URL('shared', self.registration.scope), 303)
}
