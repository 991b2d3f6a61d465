/** A label beside a divider. */
export function DividerLabel({
  side,
  text,
  at,
  shown,
}: {
  side: 'left' | 'right';
  text: string;
  at: number;
  shown: boolean;
}) {
  if (!shown) return null;
  const position =
    side === 'left' ? { right: `calc(100% - ${at}px + 14px)` } : { left: `calc(100% - ${at}px + 14px)` };
  return (
    <span className="pointer-events-none absolute top-3 z-10 bg-sheet px-2 py-0.5 text-ink" style={position}>
      {text}
    </span>
  );
}
