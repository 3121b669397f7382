import { comparisonSchema, type Compared, type Comparison } from '@/core/contracts/compare';
import {
  formatsSchema,
  type FactsRule,
  type FormatFacts,
  type FormatName,
  type FormatOptions,
  type SizeWish,
} from '@/core/contracts/format';
import {
  likenessSchema,
  readableSchema,
  type Likeness,
  type SmallestWords,
} from '@/core/contracts/likeness';
import type { Size } from '@/core/geometry/size';
import { ask, read, shotPath } from './ask';

/** How a picture shall leave. */
export interface PictureWish extends SizeWish {
  format: FormatName;
  quality?: number;
  options?: FormatOptions;
  maxBytes?: number;
  background?: string;
  facts?: FactsRule;
  /** A look that it leaves with. */
  look?: string;
}

/** The fields of a wish as an address has them; the format's options by their own names. */
export function pictureQuery({ options, facts, ...wish }: PictureWish): string {
  const query = new URLSearchParams();
  const told = facts && { words: Number(facts.words), origin: Number(facts.origin) };
  for (const [name, value] of Object.entries({ ...options, ...wish, ...told })) {
    if (value !== undefined) query.set(name, String(value));
  }
  return query.toString();
}

/** A picture with what was chosen for it. */
export interface MadePicture {
  blob: Blob;
  width: number;
  height: number;
  /** Its size where none is wished for: of the view and what is around it. */
  own: Size;
  quality: number;
  /** Some pixel of it is transparent, or would be where the format could hold that. */
  transparent: boolean;
}

function sizeIn(header: string | null): Size {
  const [width, height] = (header ?? '').split('x');
  return { width: Number(width), height: Number(height) };
}

/** What is asked of the server about pictures as they leave. */
export const pictureApi = {
  compare: (first: string, second: string, of: Compared): Promise<Comparison> =>
    read(comparisonSchema, `${shotPath(first)}/compare/${second}?of=${of}`),
  picture: async (id: string, wish: PictureWish, signal?: AbortSignal): Promise<MadePicture> => {
    const answer = await ask(`${shotPath(id)}/picture?${pictureQuery(wish)}`, { signal });
    return {
      blob: await answer.blob(),
      ...sizeIn(answer.headers.get('X-Picture-Size')),
      own: sizeIn(answer.headers.get('X-Picture-Own')),
      quality: Number(answer.headers.get('X-Picture-Quality')),
      transparent: answer.headers.get('X-Picture-Transparent') === '1',
    };
  },
  formats: async (): Promise<FormatFacts[]> => (await read(formatsSchema, '/api/formats')).formats,
  likeness: (id: string, wish: PictureWish, signal?: AbortSignal): Promise<Likeness> =>
    read(likenessSchema, `${shotPath(id)}/likeness?${pictureQuery(wish)}`, { signal }),
  sameLooking: (id: string, wish: PictureWish, signal?: AbortSignal): Promise<Likeness> =>
    read(likenessSchema, `${shotPath(id)}/likeness?same=1&${pictureQuery(wish)}`, { signal }),
  smallestWords: async (id: string): Promise<SmallestWords> =>
    (await read(readableSchema, `${shotPath(id)}/readable`)).smallest,
};
