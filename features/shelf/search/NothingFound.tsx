import type { Help } from '@/core/contracts/search';
import { withoutPart } from '@/core/search/grammar';
import { sayPart } from '@/core/search/say';
import { Button } from '../../ui/Button';
import { ask, readTyped, useAsked } from './asked';

/** What to loosen where nothing was found, and a known word for a mistyped one. */
export function NothingFound({ help }: { help: Help | undefined }) {
  const text = useAsked((s) => s.text);
  const bin = useAsked((s) => s.bin);
  const { parts } = readTyped(text);
  const instead = (help?.instead ?? []).flatMap(({ part, typed, word }) => {
    const place = parts[part];
    if (!place) return [];
    const own = text.slice(place.start, place.end);
    const at = own.toLowerCase().indexOf(typed);
    const fixed = at < 0 ? word : own.slice(0, at) + word + own.slice(at + typed.length);
    return [{ word, text: text.slice(0, place.start) + fixed + text.slice(place.end) }];
  });
  const loosen = (help?.loosen ?? []).flatMap((n) => parts[n] ?? []);
  return (
    <div role="status" className="m-auto flex max-w-md flex-col items-center gap-3 text-center">
      <p className="text-soft">
        {bin ? 'Nothing in the bin fits all of this.' : 'No shot fits all of this.'}
        {instead.length === 0 && loosen.length === 0 && ' Try fewer or other words.'}
      </p>
      {instead.map((one) => (
        <Button key={one.text} onClick={() => ask({ text: one.text })}>
          Look for “{one.word}” instead
        </Button>
      ))}
      {loosen.map((part) => (
        <Button key={part.start} onClick={() => ask({ text: withoutPart(text, part) })}>
          Leave away: {sayPart(part)}
        </Button>
      ))}
    </div>
  );
}
