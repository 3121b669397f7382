import sharp from 'sharp';
import { pageSchema } from '@/core/contracts/page';
import type { Provenance } from '@/core/contracts/provenance';
import { Fault } from '../base/fault';
import { practiceSite } from '../pages/practice/site';
import { provenanceOf } from '../pages/provenance';
import { reachNow } from '../pages/reachNow';
import { takePage } from '../pages/takePage';
import { rememberWords } from '../words/known';

/** A picture, and where it is from. */
export interface Pictured {
  picture: Uint8Array;
  width: number;
  height: number;
  provenance: Provenance;
}

/**
 * A page of the practice web site, as a person would have taken it.
 * @param at when
 * @returns null where there is no browser to take it with
 */
export async function practicePage(path: string, at: Date): Promise<Pictured | null> {
  const page = pageSchema.parse({ address: `${await practiceSite()}${path}`, width: 960 });
  try {
    const signal = new AbortController().signal;
    const taken = await takePage(page, await reachNow(page.address, false), () => {}, signal);
    const provenance = provenanceOf({ ...taken, takenAt: at });
    if (taken.words) rememberWords(provenance, taken.words);
    const { width, height } = await sharp(taken.bytes).metadata();
    return { picture: taken.bytes, width, height, provenance };
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
    console.error('The demo has no web page:', error.message);
    return null;
  }
}
