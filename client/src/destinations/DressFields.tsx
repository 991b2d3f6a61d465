import { useQuery } from '@tanstack/react-query';
import { fontsQuery } from '../api/queries';
import { TickField } from '../forms/Fields';
import { MarkFields } from './MarkFields';
import { RuleSelect, RuleText, RuleTick, Wide } from '../forms/RuleFields';
import { usePlace } from '../forms/slotForm';
import { type FadeRule, fixedFade, neededFade } from '../domain/overlay';
import { t } from '../texts/texts';

const aligns = [
  ['left', 'left'],
  ['centre', 'centre'],
  ['right', 'right'],
] as const;

const reaches = [
  ['all', t('destinations.theWholeSlot')],
  ['side', t('destinations.theNearestSide')],
] as const;

const letters = [100, 200, 300, 400, 500, 600, 700, 800, 900].map((one) => [`${one}`, `${one}`] as const);

/** What every picture of the slot has over it: a colour mixed in, and a title. */
export function DressFields() {
  const fade = usePlace('dress.fade');
  const title = usePlace('dress.title');
  return (
    <>
      <Wide columns={4}>
        <TickField
          name={t('destinations.fadeToAColour')}
          value={fade.value !== undefined}
          onSet={(on) => fade.set(on ? fixedFade(undefined) : undefined)}
        />
      </Wide>
      {fade.value !== undefined && <FadeFields rule={fade.value as FadeRule} set={fade.set} />}
      <Wide columns={4}>
        <TickField
          name={t('destinations.withATitle')}
          value={title.value !== undefined}
          onSet={(on) => title.set(on ? { size: 32, fade: true } : undefined)}
        />
      </Wide>
      {title.value !== undefined && <TitleFields />}
      <MarkFields />
    </>
  );
}

function FadeFields({ rule, set }: { rule: FadeRule; set: (value: unknown) => void }) {
  const solved = rule.ink !== undefined;
  return (
    <>
      <RuleText name={t('destinations.colour')} place="dress.fade.to" placeholder="#ffffff" />
      {solved ? (
        <>
          <RuleText
            name={t('destinations.textColourToKeepReadable')}
            place="dress.fade.ink"
            placeholder="#222222"
            read={(text) => text}
          />
          <RuleText name={t('destinations.contrast')} place="dress.fade.contrast" />
        </>
      ) : (
        <RuleText name={t('destinations.amount0To1')} place="dress.fade.amount" placeholder="0.5" />
      )}
      <span className={solved ? '' : 'col-span-2'} />
      <Wide columns={2}>
        <RuleSelect name={t('destinations.areaOfTheFade')} place="dress.fade.reach" options={reaches} />
      </Wide>
      <Area place="dress.fade.area" />
      <Wide columns={4}>
        <TickField
          name={t('destinations.asStrongAsTheTextNeeds')}
          value={solved}
          onSet={(on) => set(on ? neededFade(rule) : fixedFade(rule))}
        />
      </Wide>
    </>
  );
}

function TitleFields() {
  const fonts = useQuery(fontsQuery).data ?? [];
  const names = [...new Set(fonts.map((font) => font.family))].map((name) => [name, name] as const);
  return (
    <>
      <Wide columns={4}>
        <RuleText
          name={t('destinations.text')}
          place="dress.title.text"

          read={(text) => text || undefined}
        />
      </Wide>
      <Wide columns={2}>
        <RuleSelect name={t('destinations.font')} place="dress.title.font" options={names} />
      </Wide>
      <RuleText name={t('destinations.size')} place="dress.title.size" unit="px" />
      <RuleSelect
        name={t('destinations.weight')}
        place="dress.title.weight"
        options={letters}
        read={Number}
      />
      <RuleText
        name={t('destinations.textColour')}
        place="dress.title.ink"

        read={(text) => text || undefined}
      />
      <RuleText
        name={t('destinations.contrast')}
        place="dress.title.contrast"
        placeholder={t('destinations.bySize')}
      />
      <Area place="dress.title.area" />
      <RuleSelect name={t('destinations.alignment')} place="dress.title.align" options={aligns} />
      <span className="col-span-3 self-end pb-1">
        <RuleTick name={t('destinations.fadeThePictureAsFarAs')} place="dress.title.fade" />
      </span>
    </>
  );
}

/** Four fractions of the slot. */
function Area({ place }: { place: string }) {
  return (
    <Wide columns={2}>
      <RuleText
        name={t('destinations.area')}
        place={place}

        placeholder={t('destinations.allOfIt')}
        show={(value) => (Array.isArray(value) ? value.join(' ') : String(value ?? ''))}
        read={(text) => {
          const parts = text.trim().split(/[\s,]+/);
          return text.trim() === ''
            ? undefined
            : parts.every((part) => /^[0-9.]+$/.test(part)) && !text.endsWith(' ') && !text.endsWith('.')
              ? parts.map(Number)
              : text;
        }}
      />
    </Wide>
  );
}
