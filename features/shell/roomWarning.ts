import { api } from '../api/client';
import { notify } from '../notices/noticeStore';
import { navigate } from '../thread/navigate';
import { formatBytes } from '../ui/format';

const SOON = 5_000;
const DAY = 24 * 3_600_000;
const SAID = 'rezzik-room-said';

/** When it was said last: once a day is enough. */
function saidLately(now: number): boolean {
  try {
    return now - Number(localStorage.getItem(SAID) ?? 0) < DAY;
  } catch {
    return false;
  }
}

function remember(now: number): void {
  try {
    localStorage.setItem(SAID, String(now));
  } catch {
    // It is said again after the next load.
  }
}

/** Says once a day that room runs short, before a take fails for it. */
export function warnOfRoom(): () => void {
  const timer = setTimeout(() => void look(), SOON);
  return () => clearTimeout(timer);
}

async function look(): Promise<void> {
  if (saidLately(Date.now())) return;
  // Whoever cannot be asked tells of greater trouble elsewhere.
  const left = await api.roomLeft().catch(() => null);
  if (!left?.low || left.free === null) return;
  remember(Date.now());
  notify({
    key: 'room',
    tone: 'bad',
    title: `Room runs short: ${formatBytes(left.free)} are free.`,
    lines: [`The last thirty days took ${formatBytes(left.lately)}.`],
    action: { label: 'What uses it', act: () => navigate('/setup/room') },
  });
}
