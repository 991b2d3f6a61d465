/** One of a few, side by side. */
export function Choice<T extends string | number>({
  label,
  chosen,
  onChoose,
  options,
}: {
  label: string;
  chosen: T;
  onChoose: (one: T) => void;
  /** What can be chosen: its value, its words, and what it is called where the words are too short. */
  options: readonly (readonly [value: T, words: string, name?: string])[];
}) {
  return (
    <div role="radiogroup" aria-label={label} className="flex flex-wrap">
      {options.map(([value, words, name]) => (
        <button
          key={value}
          type="button"
          role="radio"
          aria-checked={value === chosen}
          // What is seen is a part of what is said.
          aria-label={name && `${words}: ${name}`}
          onClick={() => onChoose(value)}
          className={`-ml-px h-8 border px-2 whitespace-nowrap first:ml-0 ${
            value === chosen
              ? 'relative border-accent bg-accent text-on-accent'
              : 'border-line bg-sheet hover:border-ink-2'
          }`}
        >
          {words}
        </button>
      ))}
    </div>
  );
}
