import { captionFields, fieldsIn } from '@/core/finish/surround/fields';
import { limits } from '@/core/values/limits';
import { Button } from '../../ui/Button';
import { setPart } from '../fit/surrounding';
import { useDocument } from '../session/document';
import { leavingDocument } from '../session/leaving';
import { WordsInput } from './WordsInput';

/** The words of a caption; fields in braces are filled in by themselves, or once and for all. */
export function CaptionWords({ text }: { text: string }) {
  // Asked for anew whenever what the fields stand for may have changed.
  useDocument((s) => s.title);
  const said = leavingDocument(true).finish?.surround?.caption?.text ?? '';
  const hint = `Fields: ${captionFields.map((field) => `{${field}}`).join(' ')}`;
  return (
    <span title={hint} className="flex flex-wrap items-center gap-2">
      <WordsInput
        label="Words"
        value={text}
        most={limits.captionLength}
        className="w-40"
        lines
        onCommit={(next) => setPart('caption', { text: next })}
      />
      {fieldsIn(text).size > 0 ? (
        <Button
          look="quiet"
          title={`Writes “${said}” in place of the fields`}
          onClick={() => setPart('caption', { text: said })}
        >
          As words
        </Button>
      ) : (
        <span className="sr-only">{hint}</span>
      )}
    </span>
  );
}
