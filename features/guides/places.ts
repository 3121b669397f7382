import { useState } from 'react';
import { z } from 'zod';
import type { Folder } from '@/core/contracts/folder';
import { guideFormats } from '@/core/contracts/guide';

/** As what and where guides were kept last, in this browser. */
const placesSchema = z.object({
  formats: z.array(z.enum(guideFormats)),
  folders: z.array(z.string()),
  link: z.boolean(),
});
export type Places = z.infer<typeof placesSchema>;

const KEY = 'rezzik-guide-places';

function remembered(): Places | null {
  try {
    return placesSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? ''));
  } catch {
    return null;
  }
}

/** Where a guide goes; at first as a page into the default folder. */
export function useChosenPlaces(
  folders: readonly Folder[],
): [Places, (change: Partial<Places>) => void] {
  const [chosen, setChosen] = useState<Places | null>(remembered);
  const usual = folders.filter((folder) => folder.isDefault).map(({ id }) => id);
  const all = chosen ?? { formats: ['html'], folders: usual, link: false };
  // A folder may have been taken out of Setup meanwhile.
  const places = {
    ...all,
    folders: all.folders.filter((id) => folders.some((folder) => folder.id === id)),
  };
  const change = (patch: Partial<Places>) => {
    const next = { ...places, ...patch };
    localStorage.setItem(KEY, JSON.stringify(next));
    setChosen(next);
  };
  return [places, change];
}
