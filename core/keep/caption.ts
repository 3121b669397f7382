import type { Shot } from '../contracts/shot';
import type { ShotDocument } from '../document/document';
import { filledCaption } from '../finish/surround/fields';
import { civilTime, formatCivil } from '../naming/civilTime';
import { limits } from '../values/limits';
import { leavingDescription, leavingTitle } from './leaving';

type Captioned = Pick<Shot, 'title' | 'titleOwn' | 'provenance' | 'document'>;

/** As a time is usually written under a picture. */
const FORM = 'yyyy-MM-dd HH:mm';

/**
 * The document of a shot with the words of its caption in place of their fields.
 * @param origin whether where it is from may be told; otherwise what says so stays away
 * @param timeZone IANA name
 */
export function withCaption(shot: Captioned, origin: boolean, timeZone: string): ShotDocument {
  const { document } = shot;
  const surround = document.finish?.surround;
  if (!surround?.caption) return document;
  const { takenAt } = shot.provenance;
  const text = filledCaption(surround.caption.text, {
    title: origin ? shot.title : leavingTitle(shot),
    where: origin ? whereOf(shot) : '',
    description: (origin ? document.description : leavingDescription(shot)) ?? '',
    n: surround.caption.number ?? 1,
    time: (form) => formatCivil(civilTime(takenAt, timeZone), form || FORM),
  }).slice(0, limits.captionLength);
  const caption = { ...surround.caption, text };
  return { ...document, finish: { ...document.finish, surround: { ...surround, caption } } };
}

/** Window and address, as far as they are known. */
export const whereOf = ({ provenance }: Pick<Shot, 'provenance'>): string =>
  [provenance.windowTitle, provenance.address].filter(Boolean).join(' · ');

/** Tells whether a caption says more where the origin may be told. */
export const captionTellsWhere = (shot: Captioned): boolean =>
  wordsOf(withCaption(shot, true, 'UTC')) !== wordsOf(withCaption(shot, false, 'UTC'));

const wordsOf = ({ finish }: ShotDocument): string => finish?.surround?.caption?.text ?? '';
