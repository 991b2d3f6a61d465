import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'wouter';
import { api, type Destination, type DraftCheck, type Slot, take } from '../api/client';
import { typeNames } from '../design/typeNames';
import { Button } from '../design/Button';
import { sentence } from '../design/figures';
import { Notice } from '../design/Notice';
import { Group, SelectField, TextField, TickField } from './Fields';
import { formOf, type Rule, sizeForms, typed, valueAt, weightText, withValue } from './rule';
import { SlotDrawing } from './SlotDrawing';

const pause = 250;
const newRule: Rule = { key: 'new-slot', name: 'New slot', size: { ratio: '3:2', width: 1200 } };
const sizeWords: Record<string, string> = {
  width: 'Width',
  height: 'Height',
  longSide: 'Longest side',
  shortSide: 'Shortest side',
  ratio: 'Ratio',
  share: 'Share, 0 to 1',
  maxPixels: 'Pixels',
};
const typeList = ['jpeg', 'png', 'webp', 'avif', 'auto'];

/** Every key of a slot's rule; checked while it is written, set when asked. */
export function SlotEditor({
  destination,
  slotKey,
  known,
  onSaved,
  onRetire,
}: {
  destination: Destination;
  slotKey: string;
  known: Slot | undefined;
  onSaved: (book: Destination[], key: string) => void;
  onRetire: (retired: boolean) => void;
}) {
  const isNew = slotKey === 'new';
  const stored = useQuery({
    ...slotQuery(destination.key, slotKey),
    enabled: !isNew,
    gcTime: 0,
    staleTime: 0,
  });
  if (stored.isError) return <Notice>{stored.error.message}</Notice>;
  if (!isNew && !stored.data) return <Notice>Opening the rule.</Notice>;
  const taken = new Set(destination.slots.map((one) => one.key));
  let fresh = 'new-slot';
  for (let n = 2; taken.has(fresh); n++) fresh = `new-slot-${n}`;
  return (
    <Editor
      destination={destination}
      isNew={isNew}
      start={isNew ? { ...newRule, key: fresh } : (stored.data!.rule as Rule)}
      startPattern={isNew ? '' : (stored.data!.pattern ?? '')}
      known={known}
      onSaved={onSaved}
      onRetire={onRetire}
    />
  );
}

const slotQuery = (destination: string, slot: string) => ({
  queryKey: ['slot', destination, slot],
  queryFn: () =>
    take(
      api.GET('/api/destinations/{destination}/slots/{slot}', {
        params: { path: { destination, slot } },
      }),
    ),
});

function Editor({
  destination,
  isNew,
  start,
  startPattern,
  known,
  onSaved,
  onRetire,
}: {
  destination: Destination;
  isNew: boolean;
  start: Rule;
  startPattern: string;
  known: Slot | undefined;
  onSaved: (book: Destination[], key: string) => void;
  onRetire: (retired: boolean) => void;
}) {
  const cache = useQueryClient();
  const [rule, setRule] = useState(start);
  const [pattern, setPattern] = useState(startPattern);
  const [check, setCheck] = useState<DraftCheck | null>(null);
  const key = String(rule.key ?? '');
  const changed = JSON.stringify(rule) !== JSON.stringify(start) || pattern !== startPattern;
  useEffect(() => {
    const timer = setTimeout(() => {
      void take(
        api.POST('/api/destinations/{destination}/slots/{slot}/check', {
          params: { path: { destination: destination.key, slot: key || 'new-slot' } },
          body: { rule, pattern },
        }),
      )
        .then(setCheck)
        .catch(() => undefined);
    }, pause);
    return () => clearTimeout(timer);
  }, [rule, pattern, destination.key, key]);
  const save = useMutation({
    mutationFn: (sent: { rule: Rule; pattern: string }) =>
      take(
        api.PUT('/api/destinations/{destination}/slots/{slot}', {
          params: { path: { destination: destination.key, slot: key } },
          body: sent,
        }),
      ),
    onSuccess: async (book, sent) => {
      onSaved(book, key);
      const kept = await cache.fetchQuery({ ...slotQuery(destination.key, key), staleTime: 0 });
      // As the server wrote it down; what was typed meanwhile stays.
      setRule((now) => (now === sent.rule ? (kept.rule as Rule) : now));
      setPattern((now) => (now === sent.pattern ? (kept.pattern ?? '') : now));
    },
  });

  const set = (place: string, value: unknown) => setRule((now) => withValue(now, place, value));
  const fault = (place: string) => {
    const at = check?.fault?.place ?? '';
    return check?.fault && (at === place || at.startsWith(`${place}.`) || at.startsWith(`${place}[`))
      ? check.fault.message
      : undefined;
  };
  const text = (
    name: string,
    place: string,
    more: { unit?: string; hint?: string; placeholder?: string } = {},
  ) => (
    <TextField
      name={name}
      value={String(valueAt(rule, place) ?? '')}
      onSet={(value) => set(place, typed(value))}
      fault={fault(place)}
      {...more}
    />
  );
  const size = (rule.size as Rule | undefined) ?? {};
  const form = formOf(size);
  const list = (place: string) => (valueAt(rule, place) as unknown[] | undefined) ?? [];
  const pair = (place: string, index: number, value: string, show: (one: unknown) => unknown) => {
    const both = [0, 1].map((i) => (i === index ? show(typed(value)) : (list(place)[i] ?? '')));
    set(
      place,
      both.every((one) => one === '' || one === undefined) ? undefined : both.map((one) => one ?? ''),
    );
  };
  const types = (rule.types as string[] | undefined) ?? ['jpeg'];
  const clear = (rule.clear as number[] | undefined) ?? [0, 0, 1, 1];
  const setClear = (next: number[]) => set('clear', next.join() === '0,0,1,1' ? undefined : next);
  const shown = check?.slot ?? known;
  const placed =
    check?.fault &&
    !/^(name|pattern|size|fit|densities|types|limits|aims|clear|subjectShare|background|ppi|key)/.test(
      check.fault.place,
    );

  return (
    <>
      <header className="flex items-center gap-2 border-b border-line px-5 py-2.5">
        <h2 className="min-w-0 flex-1 truncate text-base">{String(rule.name ?? key)}</h2>
        {!isNew && (
          <Button className="h-7!" onClick={() => onRetire(!known?.retired)}>
            {known?.retired ? 'Offer again' : 'Retire'}
          </Button>
        )}
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {shown && <SlotDrawing slot={shown} clear={clear} onClear={setClear} />}
        <Group name="Name">
          <span className="col-span-2">
            <TextField
              name="Name"
              value={String(rule.name ?? '')}
              onSet={(value) => set('name', value || undefined)}
              fault={fault('name')}
            />
          </span>
          <span className="col-span-2">
            <TextField
              name="Key"
              hint="Jobs know the slot by it; it stays"
              value={key}
              onSet={(value) => set('key', value)}
              fault={fault('key')}
              readOnly={!isNew}
            />
          </span>
          <span className="col-span-4">
            <TextField
              name="Names of its files"
              hint="{picture} {slot} {destination} {density} {width} {height} {ratio}"
              value={pattern}
              placeholder="{picture}-{slot}{density}"
              onSet={setPattern}
              fault={fault('pattern')}
            />
          </span>
        </Group>
        <Group name="Size">
          <span className="col-span-2">
            <SelectField
              name="Said by"
              value={String(form)}
              options={sizeForms.map((one, i) => [String(i), one.name] as const)}
              onSet={(value) => set('size', sizeForms[Number(value)]!.first)}
              fault={fault('size')}
            />
          </span>
          {sizeForms[form]!.keys[0] === 'within'
            ? (['width', 'height'] as const).map((one) => (
                <TextField
                  key={one}
                  name={sizeWords[one]!}
                  unit="px"
                  value={String((size.within as Rule)?.[one] ?? '')}
                  onSet={(value) =>
                    set('size', { within: { ...(size.within as Rule), [one]: typed(value) } })
                  }
                />
              ))
            : sizeForms[form]!.keys.map((one) => (
                <TextField
                  key={one}
                  name={sizeWords[one]!}
                  unit={/width|height|Side/.test(one) ? 'px' : undefined}
                  value={String(size[one] ?? '')}
                  onSet={(value) =>
                    set('size', {
                      ...size,
                      [one]: one === 'ratio' && value.includes(':') ? value : typed(value),
                    })
                  }
                />
              ))}
          <span className="col-span-2">
            <SelectField
              name="The picture"
              value={String(rule.fit ?? 'crop')}
              options={[
                ['crop', 'is cut to the shape'],
                ['whole', 'is whole, without margins'],
                ['mat', 'is whole, on a ground'],
              ]}
              onSet={(value) => set('fit', value === 'crop' ? undefined : value)}
            />
          </span>
          <TextField
            name="Densities"
            value={list('densities').length ? list('densities').join(', ') : '1'}
            onSet={(value) =>
              set(
                'densities',
                value.trim() === '1'
                  ? undefined
                  : value
                      .split(/[,;]\s*|\s+/)
                      .filter((one, i, all) => one !== '' || i === all.length - 1)
                      .map((one) => typed(one) ?? ''),
              )
            }
            fault={fault('densities')}
            hint="1, 2"
          />
          <SelectField
            name="When too small"
            value={String(rule.whenTooSmall ?? 'cap')}
            options={[
              ['cap', 'as large as honest'],
              ['skip', 'leave out'],
              ['break', 'refuse'],
            ]}
            onSet={(value) => set('whenTooSmall', value === 'cap' ? undefined : value)}
          />
        </Group>
        <Group name="Types, in order of preference">
          <div className="col-span-4 flex flex-wrap items-center gap-x-4 gap-y-1">
            {typeList.map((one) => (
              <label key={one} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  className="h-4 w-4 accent-(--pm-accent)"
                  checked={types.includes(one)}
                  onChange={(event) => {
                    const next = event.target.checked
                      ? [...types, one]
                      : types.filter((type) => type !== one);
                    set('types', next);
                  }}
                />
                {one === 'auto' ? 'by content' : typeNames[one]}
                {types.length > 1 && types.includes(one) && (
                  <b className="text-ink-2">{types.indexOf(one) + 1}</b>
                )}
              </label>
            ))}
            {fault('types') && <span className="text-[12px] text-breaks">{fault('types')}</span>}
          </div>
          <div className="col-span-4">
            <TickField
              name="One file of each, instead of the first that does"
              value={rule.each === true}
              onSet={(value) => set('each', value || undefined)}
            />
          </div>
        </Group>
        <Group name="Limits">
          <span className="col-span-2">
            <TextField
              name="Heaviest"
              placeholder="500 kB"
              value={weightText(valueAt(rule, 'limits.maxBytes'))}
              onSet={(value) => set('limits.maxBytes', typed(value))}
              fault={fault('limits.maxBytes')}
            />
          </span>
          <span className="col-span-2" />
          {text('Widest', 'limits.maxWidth', { unit: 'px' })}
          {text('Highest', 'limits.maxHeight', { unit: 'px' })}
          {text('At least wide', 'limits.minWidth', { unit: 'px' })}
          {text('At least high', 'limits.minHeight', { unit: 'px' })}
        </Group>
        <Group name="Aims">
          {[0, 1].map((i) => (
            <TextField
              key={i}
              name={i === 0 ? 'Weight from' : 'to'}
              placeholder={i === 0 ? '300 kB' : '500 kB'}
              value={weightText(list('aims.bytes')[i])}
              onSet={(value) => pair('aims.bytes', i, value, (one) => one)}
              fault={i === 0 ? fault('aims.bytes') : undefined}
            />
          ))}
          {[0, 1].map((i) => (
            <TextField
              key={i}
              name={i === 0 ? 'Quality from' : 'to'}
              value={String(list('aims.quality')[i] ?? '')}
              onSet={(value) => pair('aims.quality', i, value, (one) => one)}
              fault={i === 0 ? fault('aims.quality') : undefined}
            />
          ))}
          {text('Likeness', 'aims.likeness', { placeholder: '0.98' })}
          <span className="col-span-3 self-end pb-1">
            <TickField
              name="Below the quality, if the limit asks for it"
              value={valueAt(rule, 'aims.belowFloor') === true}
              onSet={(value) => set('aims.belowFloor', value || undefined)}
            />
          </span>
        </Group>
        <Group name="What is seen">
          {['Clear from left', 'from top', 'to right', 'to bottom'].map((name, i) => (
            <TextField
              key={name}
              name={name}
              value={String(clear[i] ?? '')}
              onSet={(value) =>
                setClear(
                  clear.map((now, j) => (j === i ? ((typed(value) as number | undefined) ?? now) : now)),
                )
              }
              fault={i === 0 ? fault('clear') : undefined}
              hint="As fractions of the slot; or drag the edges of the drawing"
            />
          ))}
          {text('Subject share', 'subjectShare', {
            hint: 'The share of the clear area that the subject takes, 0 to 1',
            placeholder: 'widest',
          })}
          {text('Ground', 'background', { hint: '#rrggbb or edge', placeholder: '#ffffff' })}
          <SelectField
            name="Sharpen"
            value={String(rule.sharpen ?? 'mild')}
            options={[
              ['off', 'not'],
              ['mild', 'mildly'],
              ['firm', 'firmly'],
            ]}
            onSet={(value) => set('sharpen', value === 'mild' ? undefined : value)}
          />
          <SelectField
            name="Moving pictures"
            value={String(rule.frames ?? 'first')}
            options={[
              ['first', 'first frame'],
              ['all', 'all frames'],
            ]}
            onSet={(value) => set('frames', value === 'first' ? undefined : value)}
          />
        </Group>
        <Group name="What is written beside the pixels">
          <SelectField
            name="Colour profile"
            value={String(rule.profile ?? 'srgb')}
            options={[
              ['srgb', 'to sRGB'],
              ['keep', 'kept'],
            ]}
            onSet={(value) => set('profile', value === 'srgb' ? undefined : value)}
          />
          <SelectField
            name="Tags"
            value={String(rule.metadata ?? 'drop')}
            options={[
              ['drop', 'none'],
              ['copyright', 'copyright'],
              ['keep', 'kept'],
            ]}
            onSet={(value) => set('metadata', value === 'drop' ? undefined : value)}
          />
          {text('Density label', 'ppi', { unit: 'ppi' })}
          <span className="self-end pb-1">
            <TickField
              name="Location"
              value={rule.location === true}
              onSet={(value) => set('location', value || undefined)}
            />
          </span>
        </Group>
      </div>
      <footer className="border-t border-line px-5 py-3">
        {placed && (
          <p className="mb-2 text-breaks">
            {check!.fault!.place}: {check!.fault!.message}
          </p>
        )}
        {check?.fault && !placed && (
          <p className="mb-2 text-breaks">The rule cannot be set yet: {check.fault.message}</p>
        )}
        {check && !check.fault && check.delivered > 0 && (
          <div className="mb-2 max-h-32 overflow-y-auto" data-testid="breaches">
            <p className={check.breaches.length > 0 ? 'font-semibold' : 'text-ink-2'}>
              {check.breaches.length === 0
                ? `All ${check.delivered} delivered files meet it.`
                : `${check.breaches.length} of ${check.delivered} delivered files no longer meet it:`}
            </p>
            {check.breaches.slice(0, 50).map((one) => (
              <p key={`${one.job}${one.path}`} className="mt-0.5">
                <Link href={`/job/${one.job}`} className="text-accent underline underline-offset-2">
                  {one.path}
                </Link>{' '}
                <span className="text-ink-2">
                  {one.reasons.map((reason) => sentence(reason.message)).join(' ')}
                </span>
              </p>
            ))}
          </div>
        )}
        {save.isError && (
          <p role="alert" className="mb-2 text-breaks">
            {save.error.message}
          </p>
        )}
        <div className="flex items-center gap-2">
          <Button
            disabled={!changed}
            onClick={() => {
              setRule(start);
              setPattern(startPattern);
            }}
          >
            Undo the changes
          </Button>
          <span className="flex-1" />
          <Button
            kind="main"
            disabled={(!changed && !isNew) || check?.fault != null || save.isPending}
            onClick={() => save.mutate({ rule, pattern })}
          >
            {isNew ? 'Make the slot' : 'Set the rule'}
          </Button>
        </div>
      </footer>
    </>
  );
}
