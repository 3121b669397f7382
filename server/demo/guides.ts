import { guideSchema } from '@/core/contracts/guide';
import { sql } from '../db/sql';
import { addGuide, changeGuide } from '../guides/guides';
import { keepGuide } from '../guides/keep';

/** A heading, or the last shot of a name with what is said of it. */
type Part = { heading: string } | { shot: string; as?: string; caption: string };

interface DemoGuide {
  title: string;
  parts: readonly Part[];
}

const guides: readonly DemoGuide[] = [
  {
    title: 'Ordering seeds',
    parts: [
      { heading: 'Find the plant' },
      {
        shot: 'Plant register, beds list',
        as: 'Open the plant register',
        caption: 'Sort by number. What has **no check date** is counted first.',
      },
      { shot: 'Preview the label', as: 'Choose the label', caption: 'Hold *Alt* for dark stock.' },
      { heading: 'Order' },
      {
        shot: 'Order confirmation',
        as: 'Wait for the confirmation',
        caption: 'It takes up to a minute. Do not press twice.',
      },
      {
        shot: 'Seed order – slip before closing',
        as: 'Print the slip',
        caption:
          'The number ({1}) is what the shop asks for. Press **Print slip** ({2}) *before* closing the window.',
      },
    ],
  },
  {
    title: 'When a sensor fails',
    parts: [
      {
        shot: 'Sensor 14, code E-207',
        as: 'Read the code',
        caption: '- E-207: no answer; look at the cable\n- E-310: dry cell; change it',
      },
      {
        shot: 'Frost tonight',
        as: 'Look at the forecast',
        caption: 'Where frost is near, cover the bench by hand.',
      },
      {
        shot: 'What Wren asked',
        as: 'Leave a note',
        caption: 'Say *when* it failed, not only that.',
      },
    ],
  },
];

/** Puts demo shots together, once. @param folderId where the guides are kept */
export async function fillGuides(folderId: string): Promise<void> {
  const [there] = await sql()`select 1 from guides limit 1`;
  if (there) return;
  for (const { title, parts } of guides) {
    const shots = new Map<string, string>();
    for (const part of parts) if ('shot' in part) shots.set(part.shot, await lastOf(part.shot));
    const { id, revision } = await addGuide({ title, shots: [] });
    const items = parts.map((part, i) =>
      'heading' in part
        ? { kind: 'heading', id: `h${i}`, text: part.heading }
        : {
            ...{ kind: 'step', id: `s${i}`, shot: shots.get(part.shot) },
            ...{ heading: part.as ?? '', caption: part.caption },
          },
    );
    await changeGuide(id, { revision, guide: guideSchema.parse({ version: 1, items }) });
    await keepGuide(id, { folderId, formats: ['html', 'pdf'] });
  }
}

async function lastOf(title: string): Promise<string> {
  const [row] = await sql()<{ id: string }[]>`
    select id from shots where title = ${title} order by taken_at desc limit 1`;
  if (!row) throw new Error(`The demo has no shot “${title}”.`);
  return row.id;
}
