/** A key's name as it stands on the key; read out by aria-keyshortcuts of what it belongs to. */
export function Key({ children }: { children: string }) {
  return (
    <kbd
      aria-hidden
      className="rounded-[4px] border border-current/60 px-1 font-measure text-[11px] leading-4 font-normal"
    >
      {children}
    </kbd>
  );
}
