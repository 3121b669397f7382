import { notify } from '../notices/noticeStore';

interface Ways {
  /** Copies it in another way while the window is not in front. @returns whether it could */
  otherwise?: () => Promise<boolean>;
  /** Told when all that is left is to wait until the person is back. */
  waits?: () => void;
  /** Other formats of the same thing, where the browser takes them. */
  beside?: Record<string, Blob>;
}

/**
 * Puts a PNG on the clipboard. When the window is not in front, lets `otherwise` do it; where that
 * cannot either, waits until the window is back, and says so.
 */
export async function copyPicture(
  png: Promise<Blob>,
  { otherwise, waits, beside = {} }: Ways = {},
): Promise<void> {
  if (!document.hasFocus() && (await otherwise?.().catch(() => false))) return;
  if (!('clipboard' in navigator) || !('write' in navigator.clipboard)) {
    throw new Error('This browser gives pages no way to copy a picture. Download it instead.');
  }
  if (!document.hasFocus()) {
    notify({
      key: 'copy-waits',
      tone: 'plain',
      title: 'The picture is copied when you are back in this window.',
    });
    waits?.();
    await focusReturns();
  }
  const taken = Object.entries(beside).filter(([type]) => ClipboardItem.supports?.(type));
  const item = () => new ClipboardItem({ 'image/png': png, ...Object.fromEntries(taken) });
  try {
    await navigator.clipboard.write([item()]);
  } catch (error) {
    if (document.hasFocus()) throw plainWords(error);
    waits?.();
    await focusReturns();
    await navigator.clipboard.write([item()]);
  }
}

function focusReturns(): Promise<void> {
  return new Promise((resolve) => {
    window.addEventListener('focus', () => resolve(), { once: true });
  });
}

function plainWords(error: unknown): Error {
  if (error instanceof DOMException && error.name === 'NotAllowedError') {
    return new Error(
      'The browser did not allow copying. The shot is safe; try Copy again, or download it.',
    );
  }
  return error instanceof Error ? error : new Error(String(error));
}

export const copyText = (text: string): Promise<void> => navigator.clipboard.writeText(text);

/** Copies a text where the browser lets the page. @returns whether it is on the clipboard */
export async function isCopied(text: string): Promise<boolean> {
  try {
    await copyText(text);
    return true;
  } catch {
    return false;
  }
}
