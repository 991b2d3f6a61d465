import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useForm } from 'react-hook-form';
import { api, type Receiver, take } from '../api/client';
import { Button } from '../design/Button';
import { Choice } from '../design/Choice';
import { Sheet } from '../design/Sheet';
import { t } from '../texts/texts';
import { ConnectionTest } from './ConnectionTest';
import { box, Destinations, type Draft, Labelled, type Way, WayFields } from './ReceiverFields';

const ways: readonly (readonly [Way, string])[] = [
  ['put', t('handingOver.address')],
  ['form', t('handingOver.formUpload')],
  ['s3', t('handingOver.objectStore')],
  ['sftp', t('handingOver.sSHHost')],
  ['folder', t('handingOver.folder')],
];

const examples: Record<Way, string> = {
  put: 'https://shop.example/files',
  form: 'https://site.example/media',
  s3: 'https://objects.example',
  sftp: 'sftp://host.example/pictures',
  folder: '/srv/pictures',
};

/** A receiver to add, or one to change. */
export function ReceiverSheet({ receiver, trigger }: { receiver?: Receiver; trigger: ReactNode }) {
  const [open, setOpen] = useState(false);
  return (
    <Sheet
      title={receiver ? receiver.rule.name : t('handingOver.newReceiver')}
      trigger={trigger}
      open={open}
      onOpenChange={setOpen}
    >
      <ReceiverForm receiver={receiver} onDone={() => setOpen(false)} />
    </Sheet>
  );
}

const text = (value: string) => (value.trim() === '' ? null : value.trim());

/** What the form says, as it is sent. */
function requestOf(
  draft: Draft,
  way: Way,
  destinations: readonly string[],
  before: Receiver['rule'] | undefined,
) {
  const isHttp = way === 'put' || way === 'form';
  return {
    rule: {
      name: draft.name.trim(),
      way,
      address: draft.address.trim(),
      destinations: [...destinations],
      user: way === 'folder' ? null : text(draft.user),
      field: text(draft.field) ?? 'file',
      shownAt: way === 'form' ? text(draft.shownAt) : null,
      trialAddress: isHttp ? text(draft.trialAddress) : null,
      bucket: way === 's3' ? text(draft.bucket) : null,
      region: text(draft.region) ?? 'us-east-1',
      // Another host shows another key.
      hostKey: draft.address.trim() === before?.address ? before.hostKey : null,
    },
    // What is kept is never shown: an empty field leaves it.
    secret: draft.secret === '' ? null : draft.secret,
  };
}

function useReceiverForm(receiver: Receiver | undefined, onDone: () => void) {
  const cache = useQueryClient();
  const rule = receiver?.rule;
  const [way, setWay] = useState<Way>(rule?.way ?? 'put');
  const [destinations, setDestinations] = useState<readonly string[]>(rule?.destinations ?? []);
  const form = useForm<Draft>({
    defaultValues: {
      name: rule?.name ?? '',
      address: rule?.address ?? '',
      user: rule?.user ?? '',
      secret: '',
      field: rule?.field ?? 'file',
      shownAt: rule?.shownAt ?? '',
      trialAddress: rule?.trialAddress ?? '',
      bucket: rule?.bucket ?? '',
      region: rule?.region ?? 'us-east-1',
    },
  });
  const settled = () => void cache.invalidateQueries({ queryKey: ['deliveries'] });
  const save = useMutation({
    mutationFn: (draft: Draft) => {
      const body = requestOf(draft, way, destinations, rule);
      return receiver
        ? take(api.PUT('/api/receivers/{id}', { params: { path: { id: receiver.id } }, body }))
        : take(api.POST('/api/receivers', { body }));
    },
    onSuccess: onDone,
    onSettled: settled,
  });
  const remove = useMutation({
    mutationFn: () => take(api.DELETE('/api/receivers/{id}', { params: { path: { id: receiver!.id } } })),
    onSuccess: onDone,
    onSettled: settled,
  });
  return { way, setWay, destinations, setDestinations, form, save, remove };
}

function ReceiverForm({ receiver, onDone }: { receiver?: Receiver; onDone: () => void }) {
  const { way, setWay, destinations, setDestinations, form, save, remove } = useReceiverForm(
    receiver,
    onDone,
  );
  return (
    <form
      className="mt-3 grid grid-cols-2 gap-x-4 gap-y-3"
      onSubmit={(event) => void form.handleSubmit((draft) => save.mutate(draft))(event)}
    >
      <div className="col-span-2">
        <Choice label={t('handingOver.howFilesAreDelivered')} chosen={way} onChoose={setWay} options={ways} />
      </div>
      <Labelled name={t('handingOver.name')} wide>
        <input className={box} placeholder={t('handingOver.myShop')} {...form.register('name')} />
      </Labelled>
      <Labelled
        name={way === 'folder' ? t('handingOver.folderOfThisMachine') : t('handingOver.address')}
        wide
      >
        <input className={box} placeholder={examples[way]} {...form.register('address')} />
      </Labelled>
      <WayFields way={way} kept={receiver?.hasSecret ?? false} register={form.register} />
      <Destinations chosen={destinations} onChoose={setDestinations} />
      {receiver && <ConnectionTest receiver={receiver} />}
      {(save.isError || remove.isError) && (
        <p role="alert" className="col-span-2 text-breaks">
          {save.error?.message ?? remove.error?.message}
        </p>
      )}
      <div className="col-span-2 flex gap-2">
        <Button kind="main" type="submit" disabled={save.isPending}>
          {receiver ? t('handingOver.save') : t('handingOver.addReceiver')}
        </Button>
        {receiver && (
          <Button
            onClick={() => remove.mutate()}
            disabled={remove.isPending}
            title={t('handingOver.filesThatItHasAlreadyStay')}
          >
            {t('handingOver.remove')}
          </Button>
        )}
      </div>
    </form>
  );
}
