import type { Role } from '../api/me';
import { t } from '../texts/texts';

/** The roles, from the most to the least. */
export const roles: readonly Role[] = ['owner', 'editor', 'viewer'];

const names: Record<Role, string> = {
  owner: t('accounts.owner'),
  editor: t('accounts.editor'),
  viewer: t('accounts.viewer'),
};

const does: Record<Role, string> = {
  owner: t('accounts.ownerDoes'),
  editor: t('accounts.editorDoes'),
  viewer: t('accounts.viewerDoes'),
};

/** What a role is called. */
export const roleName = (role: Role | null): string => (role ? names[role] : '');

/** What it may do, as a sentence. */
export const roleDoes = (role: Role | null): string => (role ? does[role] : '');
