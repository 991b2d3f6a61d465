/** How far something is. */
export function ProgressBar({
  label,
  done,
  of,
  held = false,
  className,
}: {
  label: string;
  done: number;
  of: number;
  /** True while nothing goes on. */
  held?: boolean;
  className: string;
}) {
  return (
    <span
      className={`relative block h-1.5 shrink-0 bg-sheet-2 ${className}`}
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={of}
      aria-valuenow={done}
    >
      <span
        className={`absolute inset-y-0 left-0 ${held ? 'bg-ink-2' : 'bg-accent'}`}
        style={{ width: `${(100 * done) / Math.max(1, of)}%` }}
      />
    </span>
  );
}
