import type { Size } from '../geometry/size';
import type { Rect } from '../geometry/rect';
import { beds, menus, notes, order, plants, sensorFault, sensors } from './content';
import { displayOf, reading, type Desk, type DeskWindow, type WindowName } from './model';
import type { DeskLayout } from './layout';

export const TITLE_HEIGHT = 30;
const ROW = 26;
const rows = { top: 122, visible: 13 };

/** Adds a window with its title bar and content to the layout. */
export function addWindow(
  layout: DeskLayout,
  desk: Desk,
  window: DeskWindow,
  front: boolean,
): void {
  const { scale } = displayOf(window.bounds);
  const size = { width: window.bounds.width / scale, height: window.bounds.height / scale };
  layout.within(window.bounds, scale, () => {
    const whole = { x: 0, y: 0, ...size };
    layout.box({ x: 3, y: 5, width: size.width, height: size.height }, '#2F4A40', 7);
    layout.box(whole, '#FDFDFA', 7);
    layout.hot(`window:${window.name}`, whole);
    layout.box(
      { x: 0, y: 0, width: size.width, height: TITLE_HEIGHT },
      front ? '#3D5A43' : '#C9CFC4',
      7,
    );
    layout.box({ x: 0, y: 20, width: size.width, height: 10 }, front ? '#3D5A43' : '#C9CFC4');
    const ink = front ? '#FFFFFF' : '#3A4642';
    layout.words(window.title, 12, 7, { colour: ink, bold: front });
    layout.hot(`title:${window.name}`, { x: 0, y: 0, width: size.width, height: TITLE_HEIGHT });
    const dash = { x: size.width - 34, y: 3, width: 28, height: 24 };
    layout.box({ x: dash.x + 8, y: 15, width: 12, height: 2 }, ink);
    layout.hot(`minimise:${window.name}`, dash, 'hand', 'Minimise');
    layout.clipped(
      { x: 0, y: TITLE_HEIGHT, width: size.width, height: size.height - TITLE_HEIGHT },
      () => contents[window.name](layout, desk, size),
    );
    layout.frame(whole, front ? '#2C4533' : '#9AA39B', 7);
  });
}

type Content = (layout: DeskLayout, desk: Desk, size: Size) => void;

const register: Content = (layout, desk, size) => {
  layout.box({ x: 0, y: 30, width: size.width, height: 52 }, '#F1F3EC');
  layout.box({ x: 14, y: 42, width: 210, height: 28 }, '#FFFFFF', 4);
  layout.frame({ x: 14, y: 42, width: 210, height: 28 }, '#A9B2A6', 4);
  layout.words('Find an accession…', 24, 47, { colour: '#6A746E' });
  layout.hot('find', { x: 14, y: 42, width: 210, height: 28 }, 'text');
  menuButton(layout, desk, 'Beds', 240);
  menuButton(layout, desk, 'Labels', 310);
  const columns = [14, 120, 330, 480];
  ['Accession', 'Plant', 'Bed', 'Checked'].forEach((title, i) =>
    layout.words(title, columns[i] ?? 0, 94, { bold: true }),
  );
  const list = { x: 0, y: rows.top, width: size.width, height: ROW * rows.visible };
  layout.clipped(list, () =>
    plants.forEach((plant, i) => {
      const top = rows.top + i * ROW - desk.scroll;
      if (top + ROW <= list.y || top >= list.y + list.height) return;
      const row: Rect = { x: 4, y: top, width: size.width - 8, height: ROW };
      if (i === 3) layout.box(row, '#E6EFE2');
      layout.box({ x: 4, y: top + ROW - 1, width: row.width, height: 1 }, '#E4E7E0');
      layout.hot(`row:${i}`, row);
      plant.forEach((cell, c) => layout.words(cell, columns[c] ?? 0, top + 4));
    }),
  );
  const foot = desk.said.register ?? `${plants.length} accessions · sorted by number`;
  layout.words(foot, 14, size.height - 32, { colour: '#5A655F' });
};

function menuButton(layout: DeskLayout, desk: Desk, name: 'Beds' | 'Labels', x: number): void {
  const r = { x, y: 42, width: 62, height: 28 };
  if (desk.menu?.name === name) layout.box(r, '#D9E5D4', 4);
  layout.words(name, x + 9, 47);
  layout.hot(
    `menu:${name}`,
    r,
    'hand',
    name === 'Labels' ? 'Print and mend labels' : 'Jump to a bed',
  );
}

/** The button that shows only while the pointer is on a row. */
export function addRowButton(layout: DeskLayout, desk: Desk, row: number): void {
  const window = desk.windows.find((w) => w.name === 'register');
  if (!window || window.minimised) return;
  const { scale } = displayOf(window.bounds);
  const width = window.bounds.width / scale;
  layout.within(window.bounds, scale, () => {
    const r = {
      x: width - 96,
      y: rows.top + row * ROW - desk.scroll + 2,
      width: 82,
      height: ROW - 4,
    };
    layout.box(r, '#2F6B45', 4);
    layout.words('Water now', r.x + 10, r.y + 2, { colour: '#FFFFFF', size: 12, bold: true });
    layout.hot(`water:${row}`, r, 'hand', 'Opens the valve for ten minutes');
  });
}

/** The open menu, over everything else. */
export function addMenu(layout: DeskLayout, desk: Desk): void {
  const window = desk.menu && desk.windows.find((w) => w.name === desk.menu?.window);
  if (!desk.menu || !window) return;
  const entries = menus[desk.menu.name];
  const x = desk.menu.name === 'Beds' ? 240 : 310;
  layout.within(window.bounds, displayOf(window.bounds).scale, () => {
    const r = { x, y: 72, width: 200, height: entries.length * 30 + 10 };
    layout.box({ ...r, x: r.x + 2, y: r.y + 3 }, '#2F4A40', 6);
    layout.box(r, '#FFFFFF', 6);
    layout.frame(r, '#9AA39B', 6);
    layout.hot('menu', r);
    entries.forEach(([plain, withAlt], i) => {
      const entry = { x: r.x + 5, y: r.y + 5 + i * 30, width: r.width - 10, height: 30 };
      if (i === desk.menuEntry) layout.box(entry, '#E1EBDD', 4);
      layout.words(desk.alt ? withAlt : plain, entry.x + 10, entry.y + 6);
      layout.hot(`entry:${i}`, entry, 'hand');
    });
  });
}

const exchange: Content = (layout, desk, size) => {
  layout.words('Order received', 24, 50, { size: 20, bold: true, colour: '#2F5D3A' });
  layout.words('Confirmation number', 24, 90);
  layout.words(order.number, 172, 90, { bold: true, fixed: true });
  layout.words('Sent to', 24, 114);
  layout.words(order.email, 172, 114);
  layout.words('Paid with card', 24, 138);
  layout.words(order.card, 172, 138, { fixed: true });
  order.lines.forEach((line, i) => layout.words(line, 24, 172 + i * 22, { colour: '#4A5651' }));
  layout.box({ x: 24, y: 232, width: size.width - 48, height: 44 }, '#FBEDE9', 5);
  layout.frame({ x: 24, y: 232, width: size.width - 48, height: 44 }, '#D9A79B', 5);
  layout.words(sensorFault, 38, 244, { colour: '#7E2A1C' });
  const slip = { x: 24, y: 300, width: 104, height: 38 };
  layout.box(slip, '#2F6B45', 5);
  layout.words('Print slip', 42, 309, { colour: '#FFFFFF', bold: true });
  layout.hot('slip', slip, 'hand', 'Prints a slip for the shop');
  if (desk.said.exchange) layout.words(desk.said.exchange, 144, 309, { colour: '#4A5651' });
};

const sensorBoard: Content = (layout, desk, size) => {
  sensors.forEach((sensor, i) => {
    const top = 46 + i * 46;
    layout.box({ x: 16, y: top, width: size.width - 32, height: 38 }, '#F1F3EC', 5);
    layout.words(sensor.name, 28, top + 10);
    const value = `${reading(desk, i).toFixed(1)} ${sensor.unit}`;
    layout.words(value, size.width - 120, top + 8, { size: 16, bold: true, fixed: true });
  });
  layout.box({ x: 16, y: 190, width: size.width - 32, height: 60 }, '#FBEDE9', 5);
  layout.words('Sensor 14', 28, 198, { bold: true, colour: '#7E2A1C' });
  layout.words('No answer since 09:40. Code E-207.', 28, 220, { colour: '#7E2A1C' });
};

const noteSheet: Content = (layout, desk) => {
  layout.words('Garden notes', 20, 46, { size: 18, bold: true });
  [desk.notes, ...notes].forEach((text, i) => layout.words(text, 20, 88 + i * 30));
};

const bedMap: Content = (layout, desk, size) => {
  layout.box({ x: 0, y: 30, width: size.width, height: size.height - 30 }, '#CFE0C4');
  layout.oval({ x: 30, y: 48, width: 190, height: 118 }, '#8FB9C9');
  layout.box({ x: 222, y: 36, width: 14, height: size.height }, '#E7DCC2');
  for (const bed of beds) {
    layout.box(bed, bed.name === 'Pond edge' ? '#A9CBA0' : '#86AD7C', 10);
    layout.words(bed.name, bed.x + 10, bed.y + 8, { bold: true, colour: '#1F3A2A' });
    layout.hot(`bed:${bed.name}`, bed, 'hand', `${bed.name}: open its list`);
  }
  if (desk.said.map) layout.words(desk.said.map, 20, size.height - 28);
};

const contents: Record<WindowName, Content> = {
  register,
  exchange,
  sensors: sensorBoard,
  notes: noteSheet,
  map: bedMap,
};

/** How far the register's table can be scrolled, in layout units. */
export const mostScroll = (plants.length - rows.visible) * ROW;
