import type { components } from '../api/schema';
import { t } from '../texts/texts';
import { ShownOnce } from '../design/ShownOnce';

/** A link that was made: it is shown now and never again. */
export function LinkMade({
  made,
  onClose,
}: {
  made: components['schemas']['LinkMade'];
  onClose: () => void;
}) {
  return (
    <ShownOnce
      says={t('accounts.linkFor', { name: made.link.name })}
      value={made.address}
      onClose={onClose}
    />
  );
}
