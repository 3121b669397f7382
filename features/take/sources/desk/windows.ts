import { displayOf, type Desk } from '@/core/desk/model';
import { TITLE_HEIGHT } from '@/core/desk/windows';
import type { Rect } from '@/core/geometry/rect';

type DeskWindow = Desk['windows'][number];

/** Windows have no numbers of their own on the desk. */
const names = ['register', 'exchange', 'sensors', 'notes', 'map'] as const;

export const numberOf = ({ name }: Pick<DeskWindow, 'name'>): number => names.indexOf(name) + 1;

/** The window with a number, as `numberOf` gives it. */
export const windowNamed = (desk: Desk, number: number): DeskWindow | undefined =>
  desk.windows.find((window) => numberOf(window) === number);

/** A window without its title bar. */
export function clientOf(bounds: Rect): Rect {
  const title = TITLE_HEIGHT * displayOf(bounds).scale;
  return { ...bounds, y: bounds.y + title, height: bounds.height - title };
}
