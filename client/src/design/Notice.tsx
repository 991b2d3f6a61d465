import type { ReactNode } from 'react';

/** A quiet sentence in the middle of a screen: loading, failed, nothing there. */
export function Notice({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <div className="grid h-full place-items-center p-8" role="status">
      <div className="flex max-w-md flex-col items-center gap-4 text-center">
        <p>{children}</p>
        {action}
      </div>
    </div>
  );
}
