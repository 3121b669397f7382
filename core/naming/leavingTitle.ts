import type { Shot } from '../contracts/shot';

/** What a name is called that says nothing of where it comes from. */
const NAMELESS = 'Picture';

/**
 * The name under which a shot leaves by link, message, clipboard or facts. A name that was made from
 * a window's title or an address says where the picture is from, so that part of it stays here
 * unless a person wrote or confirmed the name.
 */
export function leavingTitle({
  title,
  titleOwn,
  provenance,
}: Pick<Shot, 'title' | 'titleOwn' | 'provenance'>): string {
  if (titleOwn) return title;
  for (const origin of [provenance.windowTitle, provenance.address]) {
    if (!origin) continue;
    // Long titles are cut, so the end of the name may be only the beginning of the title.
    const comma = title.indexOf(', ');
    if (comma > 0 && origin.startsWith(title.slice(comma + 2))) return title.slice(0, comma);
    if (origin.startsWith(title) || title.includes(origin)) return NAMELESS;
  }
  return title;
}
