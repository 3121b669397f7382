import type { Dropped } from '@/core/contracts/mail';
import { formatBytes, formatMoment } from '../../ui/format';

/** The messages that went nowhere. */
export function Drop({ messages }: { messages: readonly Dropped[] }) {
  return (
    <section aria-label="Mail drop">
      <h2 className="mb-2 font-name text-lg">Mail drop</h2>
      <p className="mb-2 text-soft">
        Messages that went nowhere, to try mail with. {messages.length === 0 && 'None yet.'}
      </p>
      <ul>
        {messages.map((message) => (
          <li key={message.name}>
            <a
              href={`/api/mail-drop/${message.name}`}
              download={message.name}
              className="text-petrol underline"
            >
              {message.subject || 'No subject'}
            </a>{' '}
            <span className="text-[13px] text-soft">
              {message.to && `to ${message.to}, `}
              {formatBytes(message.bytes)}, {formatMoment(message.at)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
