import type { LucideIcon } from 'lucide-react';
import type { ComponentType } from 'react';
import type { DisplayClip } from '@/core/contracts/clip';
import type { Provenance } from '@/core/contracts/provenance';
import type { SoundName, TakenFrom, Way } from '@/core/contracts/way';
import type { Point } from '@/core/geometry/point';
import type { Rect } from '@/core/geometry/rect';
import type { Size } from '@/core/geometry/size';
import type { DescribedPart } from '@/core/screen/parts/described';
import type { Mark } from '@/core/marks/registry';
import type { PlacedWindow } from '@/core/region/windowChoice';

/** A window on a stilled picture. */
export interface StillWindow extends PlacedWindow {
  program?: string;
  type: 'window' | 'menu' | 'tooltip' | 'panel';
  /** It is covered, and its own pixels cannot be had. */
  visibleOnly?: boolean;
}

/** The pointer on a picture. */
export interface StillPointer {
  at: Point;
  piece: Mark | null;
}

/** A picture that is there for the sake of one window. */
export interface OwnPicture {
  picture: ImageBitmap;
  /** Where its corner lies on the stilled picture: beyond that, where the window reaches over its edge. */
  origin: Point;
  /** All of the window is on it. */
  whole: boolean;
  pointer: StillPointer | null;
}

/** A stilled picture: what choosing happens on, and later the frame. Places are its pixels. */
export interface Stilled {
  picture: ImageBitmap;
  provenance: Provenance;
  /** A first name for the shot. */
  title: string;
  /** Where the picture's corner lies in the source, so that a region can be taken again. */
  origin: Point;
  /** Its picture as a file, where it came as one. */
  png?: Blob;
  /** What to know about how it came. */
  said?: readonly string[];
  /** From back to front; null when the source knows of no windows. */
  windows: readonly StillWindow[] | null;
  focused: number | null;
  pointer: StillPointer | null;
  /** A window of which not all is seen, by its own pixels; absent where they cannot be had. */
  ofWindow?: (window: number) => Promise<OwnPicture | null>;
  /** Its parts as the programs on it describe them; absent where nobody can be asked. */
  described?: () => Promise<DescribedPart[]>;
  /** Lets go of what the source still holds for this picture. */
  letGo?: () => void;
}

/** A display one may choose, in the pixels of the whole source. */
export interface SourceDisplay {
  id: string;
  label: string;
  bounds: Rect;
}

/**
 * How the pointer comes along: as a loose piece; burnt in or not as the source sees fit, which can
 * be asked for, with words for what it does now; or not at all, and why.
 */
export type PointerAbility =
  'piece' | { asked: string; ask: (on: boolean) => Promise<void> } | { not: string };

/** What a source can do; where it cannot, why, in words for the person. */
export interface Abilities {
  windows: true | string;
  pointer: PointerAbility;
  /** It can be followed while it is scrolled. */
  long: true | string;
  /** It is there while every tab is closed. */
  series: true | string;
  /** What was there a moment ago can be held. */
  back: true | string;
  /** What moves on it can be recorded. */
  clip: true | string;
  /** What is heard with that, as far as the source ever has it. */
  sounds?: Partial<Record<SoundName, true | string>>;
  /** What a hand does on it can be told. */
  pressed?: true;
  /** It is known where a window is moved to while it is recorded. */
  follows?: true;
}

/** A click there, or a key as it is written. */
export type HandDoes = Point | { key: string };

/** What moves on a source, while it is recorded. */
export interface Filmed {
  /** With the sound of what is shared, where that is wanted. */
  stream: MediaStream;
  title: string;
  provenance: Provenance;
  /** Tells what a hand does on it, on its pictures. @returns how to stop listening */
  pressed?: (heard: (what: HandDoes) => void) => () => void;
  /**
   * Tells where a window lies, its corner, now and whenever it is moved, in the pixels of the
   * source. @returns how to stop listening
   */
  follows?: (window: number, heard: (there: Point) => void) => () => void;
  /** Lets go of what was made for it; what the source itself shows goes on. */
  letGo: () => void;
}

/** What of it is shown, and the window that this follows. */
export type ShownThere = Pick<DisplayClip, 'shown' | 'follow'>;

/** What moves on a source that the server records. */
export interface FilmedThere extends Size {
  title: string;
  /** Begins, under the id that its shot gets. */
  begin: (id: string, title: string, part: ShownThere) => Promise<unknown>;
}

/** A moment that is held: a look that nothing changed from `since` to `until`. */
export interface HeldMoment {
  id: number;
  /** ms of the clock. */
  since: number;
  /** Null for the one that still stands. */
  until: number | null;
}

/** How holding goes. */
export interface HoldingFacts {
  /** How far it goes back, ms. */
  reach: number;
  bytes: number;
  /** It goes back less far than it should: there was no more room. */
  shortened: boolean;
  /** False where nobody tells when the screen is locked. */
  locks?: boolean;
}

/** Holds the last seconds of a source, from when it is asked to until it is told to end. */
export interface Holder {
  /**
   * Begins; nothing was held before.
   * @param most bytes
   * @param ended hears that it is over by itself, in words for the person
   * @throws with words for the person
   */
  begin: (most: number, ended: (why: string) => void) => Promise<void>;
  /** It is over, and nothing of it is left. */
  end: () => void;
  facts: () => Promise<HoldingFacts>;
  /** Oldest first. From now on nothing comes to them and none is let go, until it goes on. */
  moments: () => Promise<HeldMoment[]>;
  goOn: () => void;
  /** A moment as it is looked at, no wider than so many pixels. @throws when it is gone */
  look: (id: number, width: number) => Promise<ImageBitmap>;
}

/** A turn of the wheel over what is scrolled. */
export interface Turn {
  /** More than 0 goes on, less goes back. */
  clicks: number;
  across: boolean;
  /** Where, in pixels of the whole source; null where that is not known yet. */
  at: Point | null;
}

/** What shall be stilled. */
export interface Wanted extends Pick<Way, 'display' | 'page'> {
  /** A picture that the source holds still already. */
  held?: string;
  /** A moment that it holds, instead of what is there now. */
  moment?: HeldMoment;
  /** Nobody wants it any more. */
  signal?: AbortSignal;
}

/** A place frames come from, as far as it is not looked at. What it can do decides what Take offers. */
export interface Unseen {
  name: TakenFrom;
  label: string;
  /** What it can do now. */
  readonly can: Abilities;
  /** Tells whenever that has changed; absent where it never does. @returns how to stop listening */
  changes?: (heard: () => void) => () => void;
  /** The displays one may choose from; empty when the source is one picture. */
  displays: () => readonly SourceDisplay[];
  /** What Full screen takes here, where that is no screen: its note, and what the button says. */
  full?: { note: string; take: string };
  /**
   * Everything at this moment, whole resolution.
   * @throws with words for the person
   */
  still: (wanted: Wanted) => Promise<Stilled>;
  /** Absent where no moment can be held. */
  holder?: Holder;
  /** Absent where nothing can be recorded. @throws with words for the person */
  film?: (wanted: Pick<Way, 'display' | 'pointer' | 'sounds'>) => Promise<Filmed>;
  /** Instead of that: it is recorded by the server. @throws with words for the person */
  filmThere?: (wanted: Pick<Way, 'display' | 'pointer' | 'pressed'>) => Promise<FilmedThere>;
  /** Its pictures may show Rezzik's own page. */
  showsRezzik?: true;
  /**
   * Turns the wheel as a hand would; absent where only a hand can.
   * @throws with words for the person
   */
  scroll?: (turn: Turn) => Promise<void>;
}

export interface LiveProps {
  /** Takes now; absent while something is taken. */
  take?: () => void;
  /** Ends what is taken; absent while nothing is. */
  stop?: () => void;
}

/** A source, with its icon and what Take shows of it while nothing is taken. */
export interface Source extends Unseen {
  icon: LucideIcon;
  Live: ComponentType<LiveProps>;
}

/** Things in the pixels of a whole source, as they lie on a picture of one part of it. */
export const onPicture = (r: Rect, origin: Point): Rect => ({
  ...r,
  x: r.x - origin.x,
  y: r.y - origin.y,
});
