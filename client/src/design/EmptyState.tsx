import type { ReactNode } from 'react';

/** What is to be seen where nothing is yet: a drawing of what this screen does, how it goes in three steps, and the first of them. */
export function EmptyState({
  drawing,
  title,
  steps,
  action,
}: {
  drawing: ReactNode;
  title: string;
  steps: readonly string[];
  action?: ReactNode;
}) {
  return (
    <section className="mx-auto mt-10 max-w-[860px] px-2 pb-6" aria-label={title} data-testid="empty">
      <div aria-hidden className="flex flex-wrap items-end justify-center gap-x-5 gap-y-4 text-surround-line">
        {drawing}
      </div>
      <h2 className="mt-8 text-center text-title">{title}</h2>
      <ol className="mt-5 grid grid-cols-3 gap-x-8 gap-y-4 max-md:grid-cols-1">
        {steps.map((step, i) => (
          <li key={step} className="flex gap-3 border-t border-surround-line pt-2.5">
            <span aria-hidden className="text-figure leading-none font-semibold text-ink">
              {i + 1}
            </span>
            <span className="leading-[18px]">{step}</span>
          </li>
        ))}
      </ol>
      {action && <div className="mt-6 flex justify-center">{action}</div>}
    </section>
  );
}
