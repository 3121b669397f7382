import { Fault } from '../base/fault';

const words: Record<string, [status: number, code: string, message: string]> = {
  private: [
    409,
    'private-address',
    '{host} is in your own network or on this computer. Rezzik asks before it takes a page from there.',
  ],
  never: [422, 'forbidden-address', 'This address is one that Rezzik does not ask.'],
  'own-door': [
    422,
    'forbidden-address',
    'This address is Rezzik’s own. It takes no page from itself.',
  ],
  'unknown-host': [
    502,
    'no-host',
    'No computer named {host} was found. Is the address spelled right?',
  ],
  silent: [502, 'no-answer', '{host} does not answer.'],
  download: [
    422,
    'download',
    'This address leads to a file to be saved, not to a page or a picture.',
  ],
  'too-many-bytes': [
    422,
    'too-many-bytes',
    'More comes from this address than Rezzik takes in for one page (300 MB).',
  ],
  crash: [422, 'page-crashed', 'The page made the browser end. No picture was had of it.'],
  memory: [
    422,
    'page-memory',
    'The page needs more memory than it may have (1.2 GB). Take it narrower, or its first screen only.',
  ],
  hangs: [422, 'page-hangs', 'The page keeps the browser busy and never answers.'],
  'too-long': [422, 'page-hangs', 'The page was not ready after three minutes.'],
  login: [
    422,
    'login',
    'This address asks for a name and a password first. Log in with your own browser, and share its tab.',
  ],
};

/** By what Chromium calls it: net/base/net_error_list.h. */
const netErrors: [pattern: RegExp, message: string][] = [
  [/CERT_DATE/, 'Its certificate is out of date, so whoever answers there may be somebody else.'],
  [
    /CERT|SSL/,
    'Its certificate is not to be trusted, so whoever answers there may be somebody else.',
  ],
  [/TOO_MANY_REDIRECTS/, 'It leads from one address to the next without end.'],
  [/ABORTED|INVALID_RESPONSE|EMPTY_RESPONSE/, 'It answers with nothing that is a page.'],
  [/TIMED_OUT|CONNECTION|TUNNEL/, 'It does not answer.'],
  [/UNSAFE_PORT/, 'Browsers do not ask at this port.'],
  [/BLOCKED|DISALLOWED|UNKNOWN_URL_SCHEME/, 'It leads to an address that no page is taken from.'],
];

/**
 * Why a page could not be taken.
 * @param why one of ours, or Chromium's “net::ERR_…”
 */
export function pageFault(why: string, host = ''): Fault {
  const own = words[why];
  if (own) return new Fault(own[0], own[1], own[2].replace('{host}', host), host ? { host } : {});
  const known = netErrors.find(([pattern]) => pattern.test(why));
  return new Fault(
    502,
    'no-page',
    `This address could not be taken. ${known?.[1] ?? `The browser says: ${why}.`}`,
  );
}

/** What to know about a page that was taken nevertheless. */
export function saidOf(status: number): string[] {
  if (status === 404 || status === 410)
    return [`The site says that there is no such page (${status}).`];
  if (status === 403 || status === 429)
    return [
      `The site does not let every program in (${status}): this may not be the page you know.`,
    ];
  if (status >= 400) return [`The site answered with an error (${status}).`];
  return [];
}
