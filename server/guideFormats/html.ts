import { asHtml } from '@/core/guide/asHtml';
import { pictureFor, type GuideWriter } from './contract';

/** One page with its pictures in it. */
export const html: GuideWriter = {
  name: 'html',
  mediaType: 'text/html; charset=utf-8',
  extension: 'html',
  async write(material) {
    const parts: Buffer[] = [];
    const picture = ({ id }: { id: string }) => {
      const { png, width, height } = pictureFor(material, id);
      const address = `data:image/png;base64,${Buffer.from(png).toString('base64')}`;
      return Promise.resolve({ address, width, height });
    };
    for await (const part of asHtml(material.page, picture)) parts.push(Buffer.from(part));
    return [{ path: [`${material.name}.html`], bytes: Buffer.concat(parts) }];
  },
};
