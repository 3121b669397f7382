import { shownOn } from '@/core/take/shownPart';
import type { Way } from '@/core/contracts/way';
import { provenanceOf, type Choice } from '../choice';
import { sources } from '../sources/list';
import type { Choosing } from '../takeState';
import type { ChosenPart } from './record';

/** What was chosen on the still picture, as it is recorded: the display it is on, and where it lies there. */
export function chosenPart({ way, stilled }: Choosing, choice: Choice): [Way, ChosenPart] {
  const { picture, origin } = stilled;
  const { crop, shape, window, part } = choice;
  const displays = sources[way.source].displays();
  const { display, shown } = shownOn(displays, { crop, shape, picture, origin });
  const recorded = { ...way, display: display ?? way.display };
  const follow = window && {
    ...{ window: window.id, x: window.bounds.x + origin.x, y: window.bounds.y + origin.y },
  };
  return [
    recorded,
    { shown, follow, title: part ?? window?.title, provenance: provenanceOf(choice) },
  ];
}
