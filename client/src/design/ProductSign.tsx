/** The sign of the product: a measure between two limits. */
export function ProductSign() {
  return (
    <svg viewBox="0 0 32 20" width="30" height="19" aria-hidden className="text-accent">
      <path d="M3 1v18M29 1v18M3 10h8M21 10h8" stroke="currentColor" strokeWidth="2.4" fill="none" />
      <path d="M13 10h6" stroke="currentColor" strokeWidth="2.4" strokeDasharray="1.6 1.6" fill="none" />
    </svg>
  );
}
