import { SelectField, TextField } from '../forms/Fields';
import { type Draft, type FadeRule, fixedFade, neededFade, withFade } from '../domain/overlay';
import { usual } from '../domain/ruleKeys';
import { Colour } from './Colour';
import { t } from '../texts/texts';

const kinds = [
  ['none', t('overlay.noFade')],
  ['amount', t('overlay.fixedAmount')],
  ['ink', t('overlay.asMuchAsTheTextNeeds')],
] as const;

const reaches = [
  ['all', t('overlay.allOfIt')],
  ['side', t('overlay.softToOneSide')],
] as const;

const isColour = (text: string) => /^#[0-9a-f]{6}$/i.test(text);

/** A colour that is mixed into the picture. */
export function FadePart({
  draft,
  leading,
  onDraft,
}: {
  draft: Draft;
  leading: readonly string[];
  onDraft: (draft: Draft) => void;
}) {
  const fade = draft.dress.fade;
  const set = (next: FadeRule | undefined) => onDraft(withFade(draft, next));
  const kind = !fade ? 'none' : fade.ink === undefined ? 'amount' : 'ink';
  return (
    <section className="mt-2 border-t border-line pt-2" aria-label={t('overlay.fade')}>
      <div className="grid grid-cols-2 gap-2">
        <SelectField
          name={t('overlay.fade')}
          value={kind}
          options={kinds}
          onSet={(next) =>
            set(next === 'none' ? undefined : next === 'amount' ? fixedFade(fade, 0.4) : neededFade(fade))
          }
        />
        {fade && (
          <SelectField
            name={t('overlay.areaOfTheFade')}
            value={fade.reach ?? usual('dress.fade.reach')}
            options={reaches}
            onSet={(reach) => set({ ...fade, reach: reach === 'side' ? 'side' : undefined })}
          />
        )}
      </div>
      {fade && (
        <>
          <div className="mt-1.5 grid grid-cols-4 gap-1" role="group" aria-label={t('overlay.fadeTo')}>
            {[...new Set(['#ffffff', '#000000', ...leading])].slice(0, 8).map((hex) => (
              <Colour
                key={hex}
                hex={hex}
                name={hex}
                chosen={hex === fade.to}
                onTake={() => set({ ...fade, to: hex })}
              />
            ))}
          </div>
          {fade.ink === undefined ? (
            <label className="mt-1.5 flex items-center gap-2">
              <span className="text-ink-2">{t('overlay.amount')}</span>
              <input
                type="range"
                min={0}
                max={1}
                step={0.01}
                value={fade.amount ?? 0}
                onChange={(event) => set({ ...fade, amount: Number(event.target.value) })}
                className="min-w-0 flex-1 accent-(--pm-accent)"
              />
              <span className="w-10 text-right">{Math.round((fade.amount ?? 0) * 100)} %</span>
            </label>
          ) : (
            <div className="mt-1.5 grid grid-cols-2 gap-2">
              <TextField
                name={t('overlay.textColourToKeepReadable')}
                value={fade.ink}
                fault={isColour(fade.ink) ? undefined : t('overlay.writeAColourLike222222')}
                onSet={(ink) => set({ ...fade, ink })}
              />
              <TextField
                name={t('overlay.contrast')}
                value={String(fade.contrast ?? usual<number>('dress.fade.contrast'))}
                unit=": 1"
                onSet={(text) => set({ ...fade, contrast: Number(text) || 1 })}
              />
            </div>
          )}
        </>
      )}
    </section>
  );
}
