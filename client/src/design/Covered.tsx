/** Hatches the parts of a slot that something covers: a text block, an overlapping portrait, what small screens cut away. */
export function Covered({ clear }: { clear: readonly number[] }) {
  const [left = 0, top = 0, right = 1, bottom = 1] = clear;
  const percent = (value: number) => `${value * 100}%`;
  const parts = [
    { left: 0, top: 0, width: percent(left), height: '100%' },
    { left: percent(right), top: 0, width: percent(1 - right), height: '100%' },
    { left: percent(left), top: 0, width: percent(right - left), height: percent(top) },
    { left: percent(left), top: percent(bottom), width: percent(right - left), height: percent(1 - bottom) },
  ].filter((_, i) => [left > 0, right < 1, top > 0, bottom < 1][i]);
  if (parts.length === 0) return null;
  return (
    <span aria-hidden className="pointer-events-none absolute inset-0">
      {parts.map((style, i) => (
        <span key={i} className="covered absolute" style={style} />
      ))}
    </span>
  );
}
