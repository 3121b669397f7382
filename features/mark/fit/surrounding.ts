import { withFinish } from '@/core/finish/finish';
import {
  labelOf,
  parts,
  surroundSchema,
  type PartName,
  type Surround,
} from '@/core/finish/surround/surround';
import { changeDocument } from '../session/changes';
import { session, update } from '../session/session';

const KEY = 'rezzik-surround';

export const currentSurround = (): Surround => session().history.document.finish?.surround ?? {};

/** What each part was set to last; what cannot be read is as at first. */
function remembered(): Surround {
  try {
    const read = surroundSchema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
    return read.data ?? {};
  } catch {
    return {};
  }
}

function remember<N extends PartName>(name: N, value: Surround[N]): void {
  // Its picture belongs to its shot.
  const rest = name === 'watermark' ? { ...value, picture: undefined } : value;
  try {
    localStorage.setItem(KEY, JSON.stringify({ ...remembered(), [name]: rest }));
  } catch {
    // A full store only means that the settings are forgotten.
  }
}

/** Puts another surround in place of the one there is. */
export function setSurround(surround: Surround, label: string, joins = ''): void {
  update({ before: false });
  changeDocument(
    label,
    (draft) => {
      const finish = withFinish(draft.finish, { surround });
      if (finish) draft.finish = finish;
      else delete draft.finish;
    },
    joins,
  );
}

/** Some settings of a part; while a slider is pulled, all of it is one step of undo. */
export function setPart<N extends PartName>(
  name: N,
  change: Partial<NonNullable<Surround[N]>>,
): void {
  const surround = currentSurround();
  const value = { ...parts[name].first, ...surround[name], ...change } as Surround[N];
  remember(name, value);
  const joins = `surround ${name} ${Object.keys(change).join()}`;
  setSurround({ ...surround, [name]: value }, labelOf(name), joins);
}

/** A part begins as it was last, except where that would hide what is there. */
export function switchPart(name: PartName, on: boolean): void {
  const surround = currentSurround();
  if (!on) {
    const { [name]: _, ...rest } = surround;
    setSurround(rest, `Without ${labelOf(name).toLowerCase()}`);
    return;
  }
  const first = { ...parts[name].first, ...remembered()[name] };
  // On a background it needs no plate of its own.
  const own = name === 'caption' && surround.background ? { ...first, plate: null } : first;
  setSurround({ ...surround, [name]: own }, labelOf(name));
}
