import { createContext, useContext } from 'react';
import type { Right } from '../api/me';
import { t } from '../texts/texts';

/** What whoever uses this browser may do; null where everything is allowed. */
export const RightsContext = createContext<readonly Right[] | null>(null);

/** Why a thing cannot be used that needs a right; null when it can. */
export function useLackOf(right: Right | undefined): string | null {
  const rights = useContext(RightsContext);
  if (right === undefined || rights === null || rights.includes(right)) return null;
  return right === 'edit' || right === 'publish' ? t('accounts.needsAnEditor') : t('accounts.needsTheOwner');
}

/** What turns a control off that needs a right, and says why; nothing with the right. */
export function useOffWithout(right: Right | undefined): { disabled?: true; title?: string } {
  const lack = useLackOf(right);
  return lack === null ? {} : { disabled: true, title: lack };
}
