import { slotTypeValues } from '../api/schema';
import { typeNames } from '../design/typeNames';
import { DressFields } from './DressFields';
import { Group, TextField, TickField } from './Fields';
import { typed, weightText } from './rule';
import { RulePair, RuleSelect, RuleText, RuleTick, Wide } from './RuleFields';
import { PageFields } from './PageFields';
import { SizeFields } from './SizeFields';
import { usePlace, useSlotFormHere } from './slotForm';

/** Every key of a slot's rule, by subject. */
export function SlotGroups({ isNew }: { isNew: boolean }) {
  return (
    <>
      <Group name="Name">
        <NameFields isNew={isNew} />
      </Group>
      <Group name="Size">
        <SizeFields />
      </Group>
      <Group name="On the page">
        <PageFields />
      </Group>
      <Group name="Types, in order of preference">
        <TypeFields />
      </Group>
      <Group name="Limits">
        <LimitFields />
      </Group>
      <Group name="Aims">
        <AimFields />
      </Group>
      <Group name="What is seen">
        <SeenFields />
      </Group>
      <Group name="Text and overlay">
        <DressFields />
      </Group>
      <Group name="Metadata">
        <WrittenFields />
      </Group>
    </>
  );
}

function NameFields({ isNew }: { isNew: boolean }) {
  const { form, draft, check } = useSlotFormHere();
  return (
    <>
      <Wide columns={2}>
        <RuleText name="Name" place="name" read={(text) => text || undefined} />
      </Wide>
      <Wide columns={2}>
        <RuleText
          name="Key"
          hint="Jobs know the slot by it; it stays"
          place="key"
          read={(text) => text}
          readOnly={!isNew}
        />
      </Wide>
      <Wide columns={4}>
        <TextField
          name="File names"
          hint="{picture} {slot} {destination} {density} {width} {height} {ratio} {hash}"
          value={draft.pattern}
          placeholder="{picture}-{slot}{density}"
          onSet={(pattern) => form.setValue('pattern', pattern, { shouldDirty: true })}
          fault={check?.fault?.place === 'pattern' ? check.fault.message : undefined}
        />
      </Wide>
    </>
  );
}

function TypeFields() {
  const { value, set, fault } = usePlace('types');
  const types = (value as string[] | undefined) ?? ['jpeg'];
  return (
    <>
      <div className="col-span-4 flex flex-wrap items-center gap-x-4 gap-y-1">
        {slotTypeValues.map((one) => (
          <TickField
            key={one}
            name={
              <>
                {one === 'auto' ? 'by content' : typeNames[one]}{' '}
                {types.length > 1 && types.includes(one) && (
                  <b className="text-ink-2">{types.indexOf(one) + 1}</b>
                )}
              </>
            }
            value={types.includes(one)}
            onSet={(on) => set(on ? [...types, one] : types.filter((type) => type !== one))}
          />
        ))}
        {fault && <span className="text-[12px] text-breaks">{fault}</span>}
      </div>
      <Wide columns={4}>
        <RuleTick name="One file of each, instead of the first that does" place="each" />
      </Wide>
    </>
  );
}

function LimitFields() {
  return (
    <>
      <Wide columns={2}>
        <RuleText name="Heaviest" placeholder="500 kB" place="limits.maxBytes" show={weightText} />
      </Wide>
      <Wide columns={2} />
      <RuleText name="Widest" place="limits.maxWidth" unit="px" />
      <RuleText name="Highest" place="limits.maxHeight" unit="px" />
      <RuleText name="At least wide" place="limits.minWidth" unit="px" />
      <RuleText name="At least high" place="limits.minHeight" unit="px" />
    </>
  );
}

function AimFields() {
  return (
    <>
      <RulePair name="Weight" place="aims.bytes" show={weightText} placeholders={['300 kB', '500 kB']} />
      <RulePair name="Quality" place="aims.quality" />
      <RuleText name="Likeness" place="aims.likeness" placeholder="0.98" />
      <span className="col-span-3 self-end pb-1">
        <RuleTick name="Below the quality, if the limit asks for it" place="aims.belowFloor" />
      </span>
    </>
  );
}

function SeenFields() {
  return (
    <>
      <ClearFields />
      <RuleText
        name="Subject share"
        place="subjectShare"
        hint="The share of the clear area that the subject takes, 0 to 1"
        placeholder="widest"
      />
      <RulePair
        name="Crop towards"
        place="toward"
        placeholders={['0.5', '0.5']}
        names={['Crop towards, across', 'and down']}
      />
      <RuleText name="Background" place="background" hint="#rrggbb or edge" placeholder="#ffffff" />
      <RuleSelect
        name="Sharpen"
        place="sharpen"
        usual="mild"
        options={[
          ['off', 'not'],
          ['mild', 'mildly'],
          ['firm', 'firmly'],
        ]}
      />
      <RuleSelect
        name="Animation"
        place="frames"
        usual="first"
        options={[
          ['first', 'first frame'],
          ['all', 'all frames'],
        ]}
      />
      <span className="col-span-4">
        <RuleTick name="The canvas is extended where no frame holds the keep box" place="extend" />
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
          name="Pictures stand side by side"
          value={pair.value !== undefined}
          onSet={(on) => pair.set(on ? { count: 2, gap: 8 } : undefined)}
        />
        {fault && <span className="text-[12px] text-breaks">{fault}</span>}
      </Wide>
      {pair.value !== undefined && (
        <>
          <RuleText name="How many" place="pair.count" hint="2 to 4" placeholder="2" />
          <RuleText name="Gap" place="pair.gap" unit="px" hint="Between two of them, exact" placeholder="0" />
          <RuleText
            name="Its colour"
            place="pair.background"
            hint="#rrggbb"
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
  return ['Clear from left', 'from top', 'to right', 'to bottom'].map((name, i) => (
    <TextField
      key={name}
      name={name}
      value={String(clear[i] ?? '')}
      onSet={(text) => setEdge(i, text)}
      fault={i === 0 ? fault : undefined}
      hint="As fractions of the slot; or drag the edges of the drawing"
    />
  ));
}

/** The clear area; all of the slot is not written down. */
export function useClear() {
  const { value, set, fault } = usePlace('clear');
  return {
    clear: (value as number[] | undefined) ?? [0, 0, 1, 1],
    set: (next: number[]) => set(next.join() === '0,0,1,1' ? undefined : next),
    fault,
  };
}

function WrittenFields() {
  return (
    <>
      <RuleSelect
        name="Colour profile"
        place="profile"
        usual="srgb"
        options={[
          ['srgb', 'to sRGB'],
          ['keep', 'kept'],
        ]}
      />
      <RuleSelect
        name="Tags"
        place="metadata"
        usual="drop"
        options={[
          ['drop', 'none'],
          ['copyright', 'copyright'],
          ['keep', 'kept'],
        ]}
      />
      <RuleText name="Resolution tag (ppi)" place="ppi" unit="ppi" />
      <span className="self-end pb-1">
        <RuleTick name="Location" place="location" />
      </span>
    </>
  );
}
