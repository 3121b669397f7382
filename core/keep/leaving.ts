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
  for (const origin of [provenance.part, provenance.windowTitle, provenance.address]) {
    if (!origin) continue;
    // Long titles are cut, so the end of the name may be only the beginning of the title.
    const comma = title.indexOf(', ');
    if (comma > 0 && origin.startsWith(title.slice(comma + 2))) return title.slice(0, comma);
    if (origin.startsWith(title) || title.includes(origin)) return NAMELESS;
  }
  return title;
}

/** The first description of a part whose program has told what it is. */
export const describedAs = (part: string): string => part.slice(0, 1).toUpperCase() + part.slice(1);

/**
 * The description with which a shot leaves. One that was made from what a program told is where the
 * picture is from, as such a name is.
 * @returns undefined where there is none, or it stays here
 */
export function leavingDescription({
  titleOwn,
  provenance,
  document,
}: Pick<Shot, 'titleOwn' | 'provenance' | 'document'>): string | undefined {
  const { description } = document;
  const made = provenance.part !== undefined && description === describedAs(provenance.part);
  return made && !titleOwn ? undefined : description;
}
