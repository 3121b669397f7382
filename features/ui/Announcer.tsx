import { useSaid } from './announce';

/** Reads out what was just done; two places in turn, so that repeated words are heard. */
export function Announcer() {
  const { words, at } = useSaid();
  return (
    <>
      <p role="status" className="sr-only">
        {at % 2 === 0 ? words : ''}
      </p>
      <p role="status" className="sr-only">
        {at % 2 === 1 ? words : ''}
      </p>
    </>
  );
}
