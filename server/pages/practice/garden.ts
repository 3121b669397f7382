/** Plants of the made-up garden, with where they grow and when they are sown. */
const plants = [
  ['Field poppy', 'Meadow'],
  ['Runner bean', 'Kitchen bed 2'],
  ['Sea holly', 'Gravel garden'],
  ['Wood sorrel', 'North bank'],
  ['Marigold', 'Kitchen bed 1'],
  ['Hart’s-tongue fern', 'Fern house'],
  ['Bronze fennel', 'Herb border'],
  ['Purple basil', 'Glasshouse 1'],
  ['Teasel', 'Meadow'],
  ['Foxglove', 'North bank'],
] as const;
const greens = ['#2F6B4F', '#5E8C79', '#8FB59B', '#B7802B', '#7A4E2D', '#3B6E8F'];
const SEEDS = 120;

const style = `
  :root { color-scheme: light dark; --paper: #FBFAF5; --ink: #15302A; --line: #C6D2CB; --leaf: #2F6B4F; --card: #FFFFFF; }
  @media (prefers-color-scheme: dark) { :root { --paper: #10201B; --ink: #E4EEE8; --line: #35524A; --leaf: #8FCFAE; --card: #182C26; } }
  * { box-sizing: border-box; }
  body { margin: 0; background: var(--paper); color: var(--ink); font: 16px/1.5 sans-serif; }
  header { position: sticky; top: 0; display: flex; gap: 24px; align-items: baseline; padding: 12px 32px; background: var(--card); border-bottom: 2px solid var(--leaf); }
  header b { font-size: 20px; } header a, main a { color: var(--leaf); }
  main { max-width: 1080px; margin: 0 auto; padding: 24px 32px; }
  h1 { font-size: 34px; line-height: 1.2; } h2 { margin-top: 40px; }
  .beds { display: grid; grid-template-columns: repeat(auto-fill, minmax(220px, 1fr)); gap: 16px; }
  figure { margin: 0; background: var(--card); border: 1px solid var(--line); border-radius: 8px; overflow: hidden; }
  figure img { display: block; width: 100%; aspect-ratio: 4 / 3; } figcaption { padding: 8px 12px; }
  table { width: 100%; border-collapse: collapse; } th, td { padding: 7px 10px; text-align: left; border-bottom: 1px solid var(--line); }
  thead th { position: sticky; top: 58px; background: var(--card); }
  footer { margin-top: 48px; padding: 24px 32px; border-top: 1px solid var(--line); }`;

const page = (title: string, main: string): string => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${title} · Fernhollow Botanic Garden</title><link rel="icon" href="data:,"><style>${style}</style></head>
<body><header><b>Fernhollow</b><a href="/">Garden</a><a href="/seeds">Seed list</a><a href="/label.png">A label</a></header>
<main>${main}</main><footer>Fernhollow Botanic Garden is made up. Nobody grows here.</footer></body></html>`;

/** The first page: beds with pictures that load only when they are nearly seen. */
export const gardenPage = (): string =>
  page(
    'Garden',
    `<h1>What grows in November</h1>
<p>The garden is open every day but Monday, from nine until it is dark. Seeds are given out on Saturdays at the potting shed; see the <a href="/seeds">seed list</a>.</p>
<h2>Beds</h2><div class="beds">${Array.from({ length: 24 }, (_, i) => {
      const [plant, bed] = plants[i % plants.length] ?? plants[0];
      return `<figure><img loading="lazy" src="/bed/${i}.svg" alt="${plant}"><figcaption><b>${plant}</b><br>${bed}, row ${1 + Math.floor(i / 3)}</figcaption></figure>`;
    }).join('')}</div>
<h2>Ask us</h2><form><label>What do you want to know? <input placeholder="A plant, or a bed"></label> <button type="button">Ask</button></form>`,
  );

/** A long table with a head that stays. */
export const seedsPage = (): string =>
  page(
    'Seed list',
    `<h1>Seed list</h1><p>${SEEDS} packets, as counted on 20 November 2026.</p><table><thead><tr><th>Number</th><th>Plant</th><th>From</th><th>Packets</th></tr></thead><tbody>${Array.from(
      { length: SEEDS },
      (_, i) => {
        const [plant, bed] = plants[(i * 7) % plants.length] ?? plants[0];
        return `<tr><td>S-${String(400 + i)}</td><td>${plant}</td><td>${bed}</td><td>${1 + ((i * 11) % 17)}</td></tr>`;
      },
    ).join('')}</tbody></table>`,
  );

/** A bed as a drawing of its leaves. */
export const bedPicture = (n: number): string => {
  const leaf = (i: number): string =>
    `<ellipse cx="${30 + ((n * 37 + i * 53) % 180)}" cy="${30 + ((n * 61 + i * 29) % 120)}" rx="26" ry="11" transform="rotate(${(n * 40 + i * 67) % 180} 120 90)" fill="${greens[(n + i) % greens.length]}"/>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="240" height="180"><rect width="240" height="180" fill="${n % 2 ? '#E6EFE6' : '#EFE6D2'}"/>${Array.from({ length: 9 }, (_, i) => leaf(i)).join('')}</svg>`;
};
