import { lazy, Suspense, type ReactNode } from 'react';
import { useLocation } from 'wouter';
import { useMe, useRightsChanged } from '../api/me';
import { Button } from '../design/Button';
import { Notice } from '../design/Notice';
import { RightsContext } from '../design/rights';
import { t } from '../texts/texts';

const SignIn = lazy(() => import('./SignInScreen').then((it) => ({ default: it.SignInScreen })));
const ByLink = lazy(() => import('./LinkScreens').then((it) => ({ default: it.LinkScreen })));

const links = ['/welcome', '/new-password', '/guest'];

/** What is seen before anybody is known: signing in, or what a link is for. Whoever is known goes on to the application. */
export function Entrance({ children, guest }: { children: ReactNode; guest: (job: string) => ReactNode }) {
  const me = useMe();
  const [place] = useLocation();
  useRightsChanged();
  if (links.includes(place))
    return (
      <Suspense>
        <ByLink place={place} />
      </Suspense>
    );
  if (me.isPending) return null;
  // Whoever is in stays in while the server cannot be asked again.
  if (me.data === undefined)
    return (
      <Notice action={<Button onClick={() => void me.refetch()}>{t('jobs.tryAgain')}</Button>}>
        {me.error.message}
      </Notice>
    );
  const { state, job, rights } = me.data;
  if (state === 'signedOut' || state === 'noOwner')
    return (
      <Suspense>
        <SignIn noOwner={state === 'noOwner'} />
      </Suspense>
    );
  return (
    <RightsContext value={rights}>{state === 'guest' && job !== null ? guest(job) : children}</RightsContext>
  );
}
