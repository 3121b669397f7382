import { asHtml } from '@/core/guide/asHtml';
import { pictureFor, type GuideWriter } from './contract';

const dataUrl = (type: string, bytes: Uint8Array): string =>
  `data:${type};base64,${Buffer.from(bytes).toString('base64')}`;

/** One page with its pictures in it. */
export const html: GuideWriter = {
  name: 'html',
  mediaType: 'text/html; charset=utf-8',
  extension: 'html',
  // It can be held, and gone through by keyboard.
  moves: 'mp4',
  async write(material) {
    const parts: Buffer[] = [];
    const picture = ({ id }: { id: string }) => {
      const { png, width, height } = pictureFor(material, id);
      const address = dataUrl('image/png', png);
      const film = material.moving.get(id);
      return Promise.resolve({
        ...{ address, width, height },
        ...(film && { film: dataUrl(film.mediaType, film.bytes) }),
      });
    };
    for await (const part of asHtml(material.page, picture)) parts.push(Buffer.from(part));
    return [{ path: [`${material.name}.html`], bytes: Buffer.concat(parts) }];
  },
};
