import { type ReactNode } from 'react';
import { type UseFormRegister } from 'react-hook-form';
import { type ReceiverRule } from '../api/client';
import { useDestinations } from '../api/queries';
import { t } from '../texts/texts';

export interface Draft {
  name: string;
  address: string;
  user: string;
  secret: string;
  field: string;
  shownAt: string;
  trialAddress: string;
  bucket: string;
  region: string;
}

export type Way = ReceiverRule['way'];

export const box = 'h-8 w-full rounded-md border border-line bg-sheet px-2 placeholder:text-ink-2';

/** What is to be known beside the address, by the way that files come. */
export function WayFields({
  way,
  kept,
  register,
}: {
  way: Way;
  /** True where a secret is kept already; it is never shown. */
  kept: boolean;
  register: UseFormRegister<Draft>;
}) {
  return (
    <>
      {way === 's3' && (
        <>
          <Labelled name={t('handingOver.bucket')}>
            <input className={box} {...register('bucket')} />
          </Labelled>
          <Labelled name={t('handingOver.region')}>
            <input className={box} {...register('region')} />
          </Labelled>
        </>
      )}
      {way !== 'folder' && (
        <>
          <Labelled name={way === 's3' ? t('handingOver.key') : t('handingOver.user')}>
            <input className={box} autoComplete="off" {...register('user')} />
          </Labelled>
          <Labelled
            name={
              way === 's3'
                ? t('handingOver.secret')
                : way === 'sftp'
                  ? t('handingOver.passwordOrPrivateKey')
                  : t('handingOver.passwordOrToken')
            }
          >
            {way === 'sftp' ? (
              <textarea
                rows={1}
                className={`${box} py-1.5 leading-4`}
                placeholder={kept ? t('handingOver.saved') : ''}
                {...register('secret')}
              />
            ) : (
              <input
                type="password"
                autoComplete="new-password"
                className={box}
                placeholder={kept ? t('handingOver.saved') : ''}
                {...register('secret')}
              />
            )}
          </Labelled>
        </>
      )}
      {way === 'form' && (
        <>
          <Labelled name={t('handingOver.fieldThatHoldsTheFile')}>
            <input className={box} {...register('field')} />
          </Labelled>
          <Labelled name={t('handingOver.fieldOfTheAnswerWithThe')}>
            <input
              className={box}
              placeholder={t('handingOver.locationHeaderOrSizes')}
              {...register('shownAt')}
            />
          </Labelled>
        </>
      )}
      {(way === 'put' || way === 'form') && (
        <Labelled name={t('handingOver.testAddressNobodySeesTheseFiles')} wide>
          <input className={box} placeholder={t('handingOver.none')} {...register('trialAddress')} />
        </Labelled>
      )}
    </>
  );
}

export function Labelled({
  name,
  wide = false,
  children,
}: {
  name: string;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <label className={`block min-w-0 ${wide ? 'col-span-2' : ''}`}>
      <span className="block text-ink-2">{name}</span>
      {children}
    </label>
  );
}

/** The destinations whose files it takes; none ticked means all. */
export function Destinations({
  chosen,
  onChoose,
}: {
  chosen: readonly string[];
  onChoose: (keys: readonly string[]) => void;
}) {
  const destinations = useDestinations();
  return (
    <fieldset className="col-span-2">
      <legend className="text-ink-2">
        {t('handingOver.filesOfChosen', {
          chosen: chosen.length === 0 ? t('handingOver.allDestinations') : t('handingOver.theseDestinations'),
        })}
      </legend>
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {destinations.data?.map(({ key, name }) => (
          <label key={key} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-(--pm-accent)"
              checked={chosen.includes(key)}
              onChange={() =>
                onChoose(chosen.includes(key) ? chosen.filter((one) => one !== key) : [...chosen, key])
              }
            />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
