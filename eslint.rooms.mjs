import { readdirSync } from 'node:fs';
import { join } from 'node:path';

/**
 * The rooms of each layer, the lowest first: a room may import those on lines above its own, never
 * one beside or below it. So no folder leads back to itself, and a reader knows which way to look.
 */
export const rooms = {
  core: [
    ['colour', 'geometry', 'naming', 'numbers', 'random', 'values'],
    ['drawing', 'raster', 'recognition', 'trueUp'],
    [
      'clip',
      'compare',
      'desk',
      'finish',
      'held',
      'likeness',
      'screen',
      'search',
      'series',
      'stitch',
    ],
    ['marks', 'places'],
    ['document'],
    ['contracts', 'paint'],
    ['keep', 'region'],
    ['archive', 'guide'],
    ['take'],
  ],
  features: [
    ['api', 'notices', 'small'],
    ['looks', 'outbox', 'pictures', 'settings'],
    ['keys', 'words'],
    ['ui'],
    ['films', 'tags', 'thread'],
    ['print', 'trail'],
    ['names'],
    ['keep', 'mark'],
    ['take'],
    ['setup'],
    ['clips', 'compare', 'guides'],
    ['series', 'shelf'],
    ['shell'],
  ],
  'features/mark': [
    ['session'],
    ['fit'],
    ['recognise'],
    ['actions'],
    ['gestures'],
    ['stage'],
    ['strip'],
    ['panels'],
  ],
  'features/keep': [['browser'], ['places']],
  'features/shelf': [['search'], ['days', 'places'], ['searches']],
  server: [
    ['base'],
    ['paint'],
    ['bus', 'db', 'formats'],
    ['guideFormats'],
    ['accessibility', 'http', 'indexing', 'jobs', 'portal', 'routines', 'settings', 'work'],
    ['folders', 'pool', 'tags', 'words'],
    ['frames', 'media'],
    ['looks'],
    ['shots'],
    ['pictures', 'search'],
    ['keep', 'reading'],
    ['join', 'stitch', 'links', 'mail', 'programs', 'remote'],
    ['display', 'pages', 'phone'],
    ['door', 'erase', 'places', 'room'],
    ['clips'],
    ['guides'],
    ['archive'],
    ['take'],
    ['series'],
    ['demo'],
  ],
};

/** Folders that are no rooms: tests stand above all. */
const apart = new Set(['tests']);

/**
 * What each room may not import, for `import-x/no-restricted-paths`.
 * @throws Error when a folder with anything in it stands in no line, or a line names one that is not there
 */
export function roomZones(root) {
  const hasFiles = (layer, { name }) => readdirSync(join(root, layer, name)).length > 0;
  const zones = Object.entries(rooms).flatMap(([layer, lines]) => {
    const there = readdirSync(join(root, layer), { withFileTypes: true })
      .filter((entry) => entry.isDirectory() && !apart.has(entry.name) && hasFiles(layer, entry))
      .map(({ name }) => name);
    const told = lines.flat();
    const odd = [
      ...there.filter((name) => !told.includes(name)),
      ...told.filter((name) => !there.includes(name)),
    ];
    if (odd.length) throw new Error(`eslint.rooms.mjs and ${layer}/ differ: ${odd.join(', ')}`);
    return lines.flatMap((line, level) => {
      const after = lines.slice(level + 1).flat();
      return line.map((room) => ({
        target: `./${layer}/${room}`,
        from: [...line.filter((other) => other !== room), ...after].map((o) => `./${layer}/${o}`),
        message: 'Rooms import what stands above them in eslint.rooms.mjs only.',
      }));
    });
  });
  return zones.filter(({ from }) => from.length > 0);
}
