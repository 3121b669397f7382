import type { Besides } from '@/core/contracts/shot';

/** Where the picture is besides: what left before cannot be called back, and is named. */
export function Elsewhere({ besides: { copies, sent, waiting, links } }: { besides: Besides }) {
  const left = [...copies, ...sent];
  return (
    <>
      {left.length > 0 && (
        <div className="mb-3">
          <p>These left before and stay as they are:</p>
          <ul className="max-h-32 overflow-auto font-measure text-[13px] break-all">
            {left.map((place) => (
              <li key={place}>{place}</li>
            ))}
          </ul>
        </div>
      )}
      {(links > 0 || waiting > 0) && (
        <p className="mb-3">
          {links > 0 && (links === 1 ? 'One link ends. ' : `${links} links end. `)}
          {waiting > 0 &&
            (waiting === 1
              ? 'One copy that waits to be sent is not sent.'
              : `${waiting} copies that wait to be sent are not sent.`)}
        </p>
      )}
    </>
  );
}
