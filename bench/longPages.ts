import { randomFrom } from '@/core/random/random';

/** How a page is made. */
interface Make {
  words: (count: number) => string;
  pick: (most: number) => number;
}

const garden =
  'frost cover bank north before six seeds cowslip pack sensor bed marsh fern holly shingle pond edge avenue gate nursery long border register accession checked plan note water ten minutes slip order spade rake mulch cutting label stock dark row count';

const paragraphs = ({ words, pick }: Make, count: number): string =>
  Array.from(
    { length: count },
    () => `<h2>${words(2 + pick(4))}</h2><p>${words(40 + pick(90))}</p>`,
  ).join('');

const rows = ({ words, pick }: Make, count: number): string =>
  Array.from(
    { length: count },
    (_, i) =>
      `<tr><td>FH-${2000 + i * 7 + pick(3)}</td><td>${words(2)}</td><td>${words(1)}</td><td>${pick(28) + 1} Nov</td></tr>`,
  ).join('');

/** A picture of its own for each number; it comes a while after the page. */
const picture = (at: number, late: boolean): string => {
  const drawing = `<svg xmlns='http://www.w3.org/2000/svg' width='600' height='220'><rect width='600' height='220' fill='hsl(${(at * 67) % 360} 40% 60%)'/><circle cx='${80 + ((at * 91) % 430)}' cy='110' r='${30 + ((at * 13) % 60)}' fill='hsl(${(at * 131) % 360} 60% 40%)'/></svg>`;
  const source = `data:image/svg+xml,${encodeURIComponent(drawing)}`;
  return `<img width=600 height=220 ${late ? 'data-late' : 'src'}="${source}">`;
};
const lateScript = `<script>
const seen = new IntersectionObserver((all) => all.forEach(({ isIntersecting, target }) => {
  if (isIntersecting) setTimeout(() => { target.src = target.dataset.late; }, 120);
}));
document.querySelectorAll('[data-late]').forEach((img) => seen.observe(img));
</script>`;

const kinds: readonly ((make: Make) => { css: string; body: string })[] = [
  (make) => ({
    css: 'main{padding:24px;max-width:720px;margin:auto}',
    body: `<main>${paragraphs(make, 16)}</main>`,
  }),
  (make) => ({
    css: 'header{position:sticky;top:0;background:#1d4a3f;color:#fff;padding:16px 24px;box-shadow:0 3px 10px #0007}main{padding:24px}',
    body: `<header><b>${make.words(2)}</b> ${make.words(3)}</header><main>${paragraphs(make, 16)}</main>`,
  }),
  (make) => ({
    css: 'table{border-collapse:collapse;width:100%}td,th{border-bottom:1px solid #ccc;padding:6px 14px;text-align:left}th{position:sticky;top:0;background:#eef2ea}',
    body: `<table><thead><tr><th>Accession</th><th>Plant</th><th>Bed</th><th>Checked</th></tr></thead><tbody>${rows(make, 130)}</tbody></table>`,
  }),
  (make) => ({
    css: 'body{background:#141b1a;color:#dfe6e2}main{padding:24px}h2{color:#7cc6ce}',
    body: `<main>${paragraphs(make, 16)}</main>`,
  }),
  (make) => ({
    css: 'main{padding:24px}img{display:block;margin:16px 0;background:#eee}',
    body: `<main>${Array.from({ length: 14 }, (_, i) => `<p>${make.words(30)}</p>${picture(i + make.pick(90), true)}`).join('')}</main>${lateScript}`,
  }),
];

/** Made-up pages that are longer than a screen, of five kinds, each of a seed of its own. */
export const longPages = (count: number, seed: number): string[] =>
  Array.from({ length: count }, (_, i) => {
    const next = randomFrom(seed + i);
    const pick = (most: number) => Math.floor(next() * most);
    const all = garden.split(' ');
    const words = (many: number) =>
      Array.from({ length: many }, () => all[pick(all.length)]).join(' ');
    const { css, body } = (kinds[i % kinds.length] ?? (() => ({ css: '', body: '' })))({
      words,
      pick,
    });
    return `<!doctype html><meta charset=utf-8><style>*{box-sizing:border-box}body{margin:0;font:${14 + pick(4)}px/1.5 sans-serif}${css}</style>${body}`;
  });
