import { useMutation } from '@tanstack/react-query';
import { api, take } from '../api/client';
import type { Right } from '../api/me';
import type { components } from '../api/schema';
import { useAhead } from '../design/useAhead';
import { t } from '../texts/texts';

type Access = components['schemas']['AccessView'];

const rights: readonly { right: Right; name: string }[] = [
  { right: 'checkPages', name: t('accounts.pageChecks') },
  { right: 'useFolders', name: t('accounts.folders') },
  { right: 'useReceivers', name: t('accounts.receivers') },
];

/** What reaches into the machine and its network, and which roles may. */
export function Reach({ access, onChanged }: { access: Access; onChanged: () => Promise<void> }) {
  const set = useMutation({
    mutationFn: (body: Access) => take(api.PUT('/api/people/access', { body })),
    onSettled: onChanged,
  });
  const [shown, choose] = useAhead(access);
  const toggle = (role: keyof Access, right: Right, on: boolean) => {
    const chosen = {
      ...shown,
      [role]: on ? [...shown[role], right] : shown[role].filter((one) => one !== right),
    };
    choose(chosen, () => set.mutateAsync(chosen));
  };
  return (
    <section className="mt-6" aria-label={t('accounts.whoMayReach')}>
      <h2 className="font-semibold">{t('accounts.whoMayReach')}</h2>
      <p className="mt-1 max-w-prose text-ink-2">{t('accounts.reachExplained')}</p>
      <table className="mt-2 border-t border-line bg-sheet">
        <thead>
          <tr className="border-b border-line text-left text-ink-2">
            <td className="w-48 px-4 py-1.5" />
            <th scope="col" className="px-4 font-normal">
              {t('accounts.editors')}
            </th>
            <th scope="col" className="px-4 font-normal">
              {t('accounts.viewers')}
            </th>
          </tr>
        </thead>
        <tbody>
          {rights.map(({ right, name }) => (
            <tr key={right} className="border-b border-line">
              <th scope="row" className="px-4 py-1.5 text-left font-normal">
                {name}
              </th>
              {(['editors', 'viewers'] as const).map((role) => (
                <td key={role} className="px-4 text-center">
                  <input
                    type="checkbox"
                    aria-label={`${name}, ${t(`accounts.${role}`)}`}
                    checked={shown[role].includes(right)}
                    onChange={(event) => toggle(role, right, event.target.checked)}
                    className="size-4 accent-(--pm-accent)"
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {set.isError && (
        <p role="alert" className="mt-1 text-breaks">
          {set.error.message}
        </p>
      )}
    </section>
  );
}
