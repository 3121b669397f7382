import { PencilRuler, ScanSearch } from 'lucide-react';
import { keyLabel, useAction, useKeyOf } from '../../keys/useAction';
import { classes } from '../../ui/classes';
import { Key } from '../../ui/Key';
import { Item, Row } from '../../ui/Row';
import { chooseTool } from '../actions/chooseTool';
import { lookForPrivate } from '../recognise/privateStore';
import { toggleRail } from '../fit/rail';
import { useDocument } from '../session/document';
import { useTool } from '../session/tool';
import { grabTool, toolGroups, type ToolFacts } from '../session/tools';

/** The left column: tools as words, in groups of purpose. */
export function ToolsPanel() {
  const isClip = useDocument((s) => s.moment !== null);
  return (
    <aside
      aria-label="Tools"
      className={classes(
        'shrink-0 [scrollbar-width:thin] overflow-x-hidden overflow-y-auto border-r border-line bg-paper px-2.5 py-0.5',
        // Above the pictures of a clip it is too low for all of them, and has a scroll bar.
        isClip ? 'w-[186px]' : 'w-[172px]',
      )}
    >
      <Row label="Tools" vertical>
        <ToolButton facts={grabTool} />
        {toolGroups.map((group) => (
          <section key={group.title} aria-label={group.title}>
            <div className="mt-px flex items-center justify-between">
              <h2 className="px-1.5 text-[12px] leading-[14px] font-bold text-soft">
                {group.title}
              </h2>
              {group.title === 'Draw' && <RailButton />}
              {group.title === 'Hide' && <PrivateButton />}
            </div>
            {group.tools.map((facts) => (
              <ToolButton key={facts.tool} facts={facts} />
            ))}
          </section>
        ))}
      </Row>
    </aside>
  );
}

/** Not a tool but something that lies beside one. */
function RailButton() {
  const on = useTool((s) => s.rail !== null);
  const key = useKeyOf('mark.rail');
  return (
    <Item>
      <button
        type="button"
        aria-pressed={on}
        aria-keyshortcuts={key}
        onClick={toggleRail}
        className={classes(
          '-my-1 flex h-6 items-center gap-1.5 rounded-[6px] pr-2 pl-1.5 text-[13px]',
          on ? 'bg-tint text-petrol' : 'hover:bg-tint',
        )}
      >
        <PencilRuler size={15} strokeWidth={1.75} aria-hidden />
        <span>Rail</span>
        {key && <Key>{keyLabel(key)}</Key>}
      </button>
    </Item>
  );
}

/** Not a tool either: it looks through the whole picture. */
function PrivateButton() {
  const key = useKeyOf('mark.private');
  useAction('mark.private', () => void lookForPrivate());
  return (
    <Item>
      <button
        type="button"
        aria-keyshortcuts={key}
        onClick={() => void lookForPrivate()}
        className="-my-1 flex h-6 items-center gap-1 rounded-[6px] pr-2 pl-1 text-[13px] hover:bg-tint"
      >
        <ScanSearch size={15} strokeWidth={1.75} aria-hidden />
        <span className="whitespace-nowrap">Find private</span>
        {key && <Key>{keyLabel(key)}</Key>}
      </button>
    </Item>
  );
}

function ToolButton({ facts }: { facts: ToolFacts }) {
  const current = useTool((s) => s.tool) === facts.tool;
  const action = `tool.${facts.tool}` as const;
  const key = useKeyOf(action);
  useAction(action, () => chooseTool(facts.tool));
  return (
    <Item>
      <button
        type="button"
        aria-pressed={current}
        aria-keyshortcuts={key}
        onClick={() => chooseTool(facts.tool)}
        className={classes(
          'flex h-6 w-full items-center gap-2.5 rounded-[6px] px-2 text-left',
          current ? 'bg-petrol text-card' : 'hover:bg-tint',
        )}
      >
        {facts.icon}
        <span className="grow">{facts.label}</span>
        {key && <Key>{keyLabel(key)}</Key>}
      </button>
    </Item>
  );
}
