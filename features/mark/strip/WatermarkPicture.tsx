import { useRef } from 'react';
import { Button } from '../../ui/Button';
import { setWatermarkPicture } from '../actions/pieces';
import { setPart } from '../fit/surrounding';

/** A picture in place of words, chosen from a file. */
export function WatermarkPicture({ held }: { held: string | undefined }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept="image/*"
        className="hidden"
        aria-label="Picture of the watermark"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          // The same file may be chosen again.
          event.target.value = '';
          if (file) void setWatermarkPicture(file);
        }}
      />
      <Button onClick={() => input.current?.click()}>
        {held === undefined ? 'Picture …' : 'Another picture …'}
      </Button>
      {held !== undefined && (
        <Button look="quiet" onClick={() => setPart('watermark', { picture: undefined })}>
          Words
        </Button>
      )}
    </>
  );
}
