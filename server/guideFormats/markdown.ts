import { asMarkdown } from '@/core/guide/asMarkdown';
import type { StepPart } from '@/core/guide/page';
import { safeName } from '@/core/naming/safeName';
import { pictureFor, type GuideBytes, type GuideWriter } from './contract';

/** Of a heading, so much is in the name of its picture. */
const LONGEST = 60;

/** A name as an address has it; brackets and quotes would end the address of a picture. */
const addressed = (name: string): string =>
  encodeURIComponent(name).replace(
    /[()!'*]/g,
    (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`,
  );

/** A text file, with the pictures in a folder of its name beside it. */
export const markdown: GuideWriter = {
  name: 'markdown',
  mediaType: 'text/markdown; charset=utf-8',
  extension: 'md',
  moves: 'webp',
  write(material) {
    const { page, name, moving } = material;
    const steps = page.parts.filter((part): part is StepPart => part.kind === 'step');
    const digits = Math.max(2, String(steps.length).length);
    const names = new Map(
      steps.map(({ id, heading }, i) => {
        const said = heading && ` ${safeName(heading.slice(0, LONGEST))}`;
        return [
          id,
          `${String(i + 1).padStart(digits, '0')}${said}.${moving.get(id)?.extension ?? 'png'}`,
        ];
      }),
    );
    const words = asMarkdown(
      page,
      ({ id }) => `${addressed(name)}/${addressed(names.get(id) ?? '')}`,
    );
    const files: GuideBytes[] = [{ path: [`${name}.md`], bytes: Buffer.from(words) }];
    for (const [id, file] of names) {
      const bytes = moving.get(id)?.bytes ?? pictureFor(material, id).png;
      files.push({ path: [name, file], bytes });
    }
    return Promise.resolve(files);
  },
};
