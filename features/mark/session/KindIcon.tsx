/** The picture of a kind of mark. `path`: on 24 × 24, see core/marks/contract.ts; `size`: px. */
export const KindIcon = ({ path, size, className }: KindIconProps) => (
  <svg
    viewBox="0 0 24 24"
    width={size}
    height={size}
    fill="none"
    stroke="currentColor"
    strokeWidth={1.75}
    strokeLinecap="round"
    strokeLinejoin="round"
    className={className}
    aria-hidden
  >
    <path d={path} />
  </svg>
);

interface KindIconProps {
  path: string;
  size: number;
  className?: string;
}
