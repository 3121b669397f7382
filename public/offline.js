// The part of the service worker that does not differ from build to build. What does, /sw.js says
// before it asks for this: `offline`, with a version and the files of the app.

/* global self, caches, fetch, Response, URL, AbortSignal, offline */

const KEPT = 'rezzik-';
const NAME = KEPT + offline.version;
/** The one page that works without the server. */
const PAGE = '/take';
/** A server that says nothing for so long is taken for stopped, ms; one that is stopped is told at once. */
const PATIENCE = 5_000;

// All or nothing: with a part of the app nobody is helped.
self.addEventListener('install', (event) => {
  const keep = async () => (await caches.open(NAME)).addAll([PAGE, ...offline.files]);
  event.waitUntil(keep());
});

// It begins only when no page of an older version is open any more: until then that one has its own
// files, and nothing is taken from under a hand that marks.
self.addEventListener('activate', (event) => {
  const tidy = async () => {
    const names = await caches.keys();
    const old = names.filter((name) => name.startsWith(KEPT) && name !== NAME);
    await Promise.all(old.map((name) => caches.delete(name)));
    await self.clients.claim();
  };
  event.waitUntil(tidy());
});

/** From the server; where that does not answer, Take, the only page that does without. */
async function page(request) {
  const kept = await caches.match(PAGE, { cacheName: NAME });
  const isTake = new URL(request.url).pathname === PAGE;
  // Only Take need not be waited for: on a slow machine the others come in their time.
  const how = kept && isTake ? { signal: AbortSignal.timeout(PATIENCE) } : undefined;
  try {
    return await fetch(request, how);
  } catch (error) {
    if (!kept) throw error;
    return isTake ? kept : Response.redirect(PAGE);
  }
}

async function file(request) {
  const kept = await caches.match(request, { cacheName: NAME });
  // As an answer of our own: a worker reads what it is to do behind the # of its address, which a
  // kept answer has lost.
  return kept ? new Response(kept.body, kept) : fetch(request);
}

// Pictures and everything else that the server answers are never kept here.
self.addEventListener('fetch', (event) => {
  const { request } = event;
  const { origin, pathname } = new URL(request.url);
  if (request.method !== 'GET' || origin !== self.location.origin) return;
  if (pathname.startsWith('/api/') || pathname.startsWith('/v/')) return;
  if (request.mode === 'navigate') {
    event.respondWith(page(request));
  } else if (pathname.startsWith('/_next/static/') || pathname.startsWith('/fonts/')) {
    event.respondWith(file(request));
  }
});
