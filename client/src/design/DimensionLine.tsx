/** A dimension line as on a technical drawing: two stops, a rule between them, the figure in a gap of the rule. */
export function DimensionLine({
  along,
  length,
  children,
  className = '',
}: {
  along: 'width' | 'height';
  /** Length on screen in CSS pixels. */
  length: number;
  children: string;
  className?: string;
}) {
  const across = along === 'width';
  const rule = across ? 'h-px flex-1 bg-current' : 'w-px flex-1 bg-current';
  return (
    <div
      aria-hidden
      className={`flex items-center text-note leading-none whitespace-nowrap ${across ? 'h-4 flex-row' : 'w-4 flex-col'} ${className}`}
      style={across ? { width: length } : { height: length }}
    >
      <Stop across={across} />
      <span className={rule} />
      <span
        className={across ? 'px-1.5' : 'pt-1.5 pb-1.5'}
        style={across ? undefined : { writingMode: 'vertical-rl', transform: 'rotate(180deg)' }}
      >
        {children}
      </span>
      <span className={rule} />
      <Stop across={across} />
    </div>
  );
}

function Stop({ across }: { across: boolean }) {
  return <span className={across ? 'h-2.5 w-px bg-current' : 'h-px w-2.5 bg-current'} />;
}
