import { TextField, TickField } from '../forms/Fields';
import { typed } from '../forms/rule';
import { RulePair, RuleSelect, RuleText, RuleTick, Wide } from '../forms/RuleFields';
import { usePlace, useSlotFormHere } from '../forms/slotForm';
import { usual } from '../domain/ruleKeys';
import { t } from '../texts/texts';

export function SeenFields() {
  return (
    <>
      <ClearFields />
      <RuleText
        name={t('destinations.subjectShare')}
        place="subjectShare"

        placeholder={t('destinations.asWideAsPossible')}
      />
      <RulePair
        name={t('destinations.cropTowards')}
        place="toward"
        placeholders={['0.5', '0.5']}
        names={[t('destinations.cropTowardsHorizontally'), t('destinations.vertically')]}
      />
      <RuleText
        name={t('destinations.background')}
        place="background"

        placeholder="#ffffff"
      />
      <RuleSelect
        name={t('destinations.sharpen')}
        place="sharpen"
        options={[
          ['off', t('destinations.none')],
          ['mild', t('destinations.mild')],
          ['firm', t('destinations.strong')],
        ]}
      />
      <RuleSelect
        name={t('destinations.animation')}
        place="frames"
        options={[
          ['first', t('destinations.firstFrame')],
          ['all', t('destinations.allFrames')],
        ]}
      />
      <span className="col-span-4">
        <RuleTick name={t('destinations.extendTheCanvasWhereNoCrop')} place="extend" />
      </span>
      <PairFields />
    </>
  );
}

function PairFields() {
  const pair = usePlace('pair');
  const { check } = useSlotFormHere();
  // What is wrong with a part of it stands at that part.
  const fault = check?.fault?.place === 'pair' ? check.fault.message : undefined;
  return (
    <>
      <Wide columns={4}>
        <TickField
          name={t('destinations.combinePicturesSideBySide')}
          value={pair.value !== undefined}
          onSet={(on) => pair.set(on ? { count: 2, gap: 8 } : undefined)}
        />
        {fault && <span className="text-small text-breaks">{fault}</span>}
      </Wide>
      {pair.value !== undefined && (
        <>
          <RuleText
            name={t('destinations.numberOfPictures')}
            place="pair.count"

            placeholder="2"
          />
          <RuleText
            name={t('destinations.gap')}
            place="pair.gap"
            unit="px"

            placeholder="0"
          />
          <RuleText
            name={t('destinations.colourOfTheGap')}
            place="pair.background"

            placeholder="#ffffff"
            read={(text) => text || undefined}
          />
        </>
      )}
    </>
  );
}

function ClearFields() {
  const { clear, set, fault } = useClear();
  const setEdge = (edge: number, text: string) => {
    const figure = typed(text) as number | undefined;
    set(clear.map((now, i) => (i === edge ? (figure ?? now) : now)));
  };
  return [
    t('destinations.clearAreaFromLeft'),
    t('destinations.fromTop'),
    t('destinations.toRight'),
    t('destinations.toBottom'),
  ].map((name, i) => (
    <TextField
      key={name}
      name={name}
      value={String(clear[i] ?? '')}
      onSet={(text) => setEdge(i, text)}
      fault={i === 0 ? fault : undefined}
      hint={t('destinations.each0To1OfThe')}
    />
  ));
}

/** The clear area; all of the slot is not written down. */
export function useClear() {
  const { value, set, fault } = usePlace('clear');
  return {
    clear: (value as number[] | undefined) ?? usual<number[]>('clear'),
    set: (next: number[]) => set(next.join() === usual<number[]>('clear').join() ? undefined : next),
    fault,
  };
}
