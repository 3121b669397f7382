import { z } from 'zod';
import { place } from './contract';

/** A folder that only one browser knows. */
export const here = place({
  step: z.strictObject({ do: z.literal('here'), folderId: z.uuid() }),
  label: () => 'Keep in a folder',
  said: ({ folder, path }: { folder: string; path: string }) => `Kept in ${folder}: ${path}`,
  failing: 'Not kept in a folder.',
  elsewhere: 'Its folder is the browser’s: keep it from Rezzik’s page',
});
