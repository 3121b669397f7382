import type { Folding } from '../../ui/FoldedRow';
import { chosenLook, classes } from '../../ui/classes';
import { Radio, Radios } from '../../ui/Radios';
import { chooseFinishing, finishingLabels } from '../fit/finishing';
import { finishings, useTool } from '../session/tool';
import { useAdjustItems } from './adjustItems';
import { useJoinItems } from './joinItems';
import { useLookItems } from './lookItems';
import { useSurroundItems } from './surroundItems';

/** What is done to the whole picture, by groups. */
function Groups() {
  const finishing = useTool((s) => s.finishing);
  return (
    <Radios
      label="Finish"
      value={finishing}
      className="flex items-center gap-1"
      onChange={chooseFinishing}
    >
      {finishings.map((name) => (
        <Radio
          key={name}
          value={name}
          className={classes('h-7 rounded-full border px-3', chosenLook(name === finishing))}
        >
          {finishingLabels[name]}
        </Radio>
      ))}
    </Radios>
  );
}

/** Everything of Finish: first which of it, then its settings. */
export function useFinishItems(): Folding[] {
  const finishing = useTool((s) => s.finishing);
  const items = {
    adjust: useAdjustItems(),
    surround: useSurroundItems(),
    look: useLookItems(),
    join: useJoinItems(),
  };
  return [{ key: 'finishing', node: <Groups /> }, ...items[finishing]];
}
