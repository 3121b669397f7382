import type { PrivateKind } from '@/core/recognition/kinds';
import { decoys, things, type Thing } from './things';

interface Look {
  name: string;
  css: string;
}

/** Looks and layouts that the patterns were tried on while they were made. */
export const tuningLooks: readonly Look[] = [
  {
    name: 'light',
    css: 'body{background:#f5f6f2;color:#222;font:14px/1.5 sans-serif}.card{background:#fff;border:1px solid #ccd4cd}b{color:#285a3c}',
  },
  {
    name: 'dark',
    css: 'body{background:#181d1b;color:#dfe6e1;font:15px/1.6 sans-serif}.card{background:#232a27}b{color:#9fd3b5}',
  },
];

/** Looks kept apart for measuring. */
export const measuredLooks: readonly Look[] = [
  {
    name: 'paper',
    css: 'body{background:#faf6ec;color:#33302a;font:14px/1.45 serif}.card{background:#fffdf7;border:1px solid #d9cfb8}b{color:#7a4a12}',
  },
  {
    name: 'night',
    css: 'body{background:#101820;color:#d7e3ee;font:16px/1.5 sans-serif}.card{background:#1a2530;border-radius:10px}b{color:#7fc4e8}',
  },
];

const base =
  '*{box-sizing:border-box}body{margin:0;padding:24px}h1{font-size:24px;margin:0 0 14px}.card{padding:16px;margin:0 0 16px}' +
  'table{border-collapse:collapse;width:100%}td{padding:5px 14px 5px 0;vertical-align:top}.cols{display:grid;grid-template-columns:1fr 1fr;gap:18px}' +
  'code{font-family:monospace}i{font-style:normal}';

type Draw = (thing: (kind: PrivateKind) => string, decoy: () => string) => string;

const tuningLayouts: readonly [string, Draw][] = [
  [
    'order',
    (t, d) =>
      `<h1>Seed exchange</h1><div class=card><table>
<tr><td><b>Sent to</b><td>${t('email')}<tr><td><b>Paid with</b><td>${t('card')}<tr><td><b>Order</b><td>${d()}
<tr><td><b>Phone</b><td>${t('phone')}<tr><td><b>Account</b><td>${t('iban')}<tr><td><b>Date</b><td>${d()}</table></div><p>${d()}. Write to ${t('email')} or call ${t('phone')}.`,
  ],
  [
    'server',
    (t, d) =>
      `<h1>Sensors</h1><div class=cols><div class=card><b>Gateway</b><br>Address ${t('ip')}<br>Name greenhouse-3<br>${d()}</div>
<div class=card><b>Secret</b><br><code>${t('key')}</code><br>Made on ${d()}</div></div><div class=card>From ${t('ip')} to ${t('ip')}: ${d()}<br>Token <code>${t('key')}</code></div><p>${d()}`,
  ],
];

const measuredLayouts: readonly [string, Draw][] = [
  [
    'letter',
    (t, d) =>
      `<h1>Message from Rowan</h1><div class=card><p>Dear all, the invoice for the ferns is due on ${d()}. Please pay to ${t('iban')} and send the slip to ${t('email')}.</p>
<p>If the gate is shut, ring ${t('phone')} before noon. ${d()}.</p><p>The old card ${t('card')} is no longer valid.</p></div><p><b>Reply to</b> ${t('email')} · ${d()}</p>`,
  ],
  [
    'list',
    (t, d) =>
      `<h1>Volunteers</h1><div class=card><table>${Array.from({ length: 5 }, () => `<tr><td><b>Bed</b><td>${d()}<td>${t('email')}<td>${t('phone')}`).join('')}</table></div><p>${d()}`,
  ],
  [
    'setup',
    (t, d) =>
      `<h1>Weather station</h1><div class=cols><div class=card><b>Network</b><table><tr><td>Address<td>${t('ip')}<tr><td>Router<td>${t('ip')}<tr><td>Seen<td>${d()}</table></div>
<div class=card><b>Access</b><p>Key</p><code>${t('key')}</code><p>Spare key</p><code>${t('key')}</code></div></div><p>Firmware ${d()}. Help: ${t('email')}`,
  ],
  [
    'payments',
    (t, d) =>
      `<h1>Payments</h1><div class=card><table>${Array.from({ length: 4 }, () => `<tr><td>${d()}<td>${t('card')}<td>${t('iban')}`).join('')}</table></div><div class=card>Questions: ${t('phone')}, ${t('email')}. Made by <code>${t('key')}</code></div>`,
  ],
];

export interface Page {
  name: string;
  address: string;
  /** What private is on it; each stands in an element of its own, `i[data-kind]`. */
  known: readonly Thing[];
}

function pagesOf(
  looks: readonly Look[],
  layouts: readonly [string, Draw][],
  seed: number,
): readonly Page[] {
  return looks.flatMap((look, l) =>
    layouts.map(([name, draw], k) => {
      const thing = things(seed + l * 10 + k);
      const known: Thing[] = [];
      let at = l * 5 + k * 3;
      const body = draw(
        (kind) => {
          const made = thing(kind);
          known.push(made);
          return `<i data-kind="${kind}">${made.text}</i>`;
        },
        () => decoys[at++ % decoys.length] ?? '',
      );
      const html = `<!doctype html><meta charset=utf-8><style>${base}${look.css}</style><body>${body}`;
      return {
        name: `${name}, ${look.name}`,
        address: `data:text/html;charset=utf-8,${encodeURIComponent(html)}`,
        known,
      };
    }),
  );
}

export const tuningPages = pagesOf(tuningLooks, tuningLayouts, 100);
export const measuredPages = pagesOf(measuredLooks, measuredLayouts, 900);

/** Run in the page: where each private thing stands. */
export const askThings = `return [...document.querySelectorAll('i[data-kind]')].map((el) => ({
  kind: el.dataset.kind, text: el.textContent,
  boxes: [...el.getClientRects()].map((r) => ({ x: r.x, y: r.y, width: r.width, height: r.height })) }));`;
