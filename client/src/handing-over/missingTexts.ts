/** A text of a picture that can be missing. */
export type TextKind = 'keywords' | 'alternative' | 'title';

/**
 * Puts the hand into the next field whose text is missing, after the one it is in, and again from the first; as exceptions are worked off on the
 * bench. False when none is missing.
 * @param kind Only fields of that kind; any where it is not given.
 * @param from The field that was left.
 */
export function goToMissing(kind?: TextKind, from: Element | null = document.activeElement): boolean {
  const fields = [...document.querySelectorAll<HTMLInputElement>('[data-missing]')].filter(
    (one) => one !== from && (kind === undefined || one.dataset.missing === kind),
  );
  const next =
    fields.find((one) => from && from.compareDocumentPosition(one) & Node.DOCUMENT_POSITION_FOLLOWING) ??
    fields[0];
  next?.scrollIntoView({ block: 'center' });
  next?.focus({ preventScroll: true });
  return next !== undefined;
}
