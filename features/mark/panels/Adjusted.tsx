import { useAdjustItems } from '../strip/adjustItems';
import { useTool } from '../session/tool';

/** Everything that the picture can be adjusted by, while Adjust is in hand. */
export function Adjusted() {
  const isShown = useTool((s) => s.tool === 'finish' && s.finishing === 'adjust');
  return isShown ? <All /> : null;
}

function All() {
  return (
    <section aria-label="Adjusted">
      <h2 className="mb-2 font-name text-base">Adjusted</h2>
      <div className="flex flex-col items-start gap-2 rounded-[8px] border border-line bg-card p-2.5">
        {useAdjustItems().map(({ key, node }) => (
          <div key={key} className="max-w-full">
            {node}
          </div>
        ))}
      </div>
    </section>
  );
}
