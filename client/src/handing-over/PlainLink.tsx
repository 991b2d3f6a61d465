/** A file to download that is not the next step. */
export function PlainLink({
  href,
  title,
  className = '',
  children,
}: {
  href: string;
  title?: string;
  className?: string;
  children: string;
}) {
  return (
    <a
      href={href}
      title={title}
      download
      className={`inline-flex h-8 items-center justify-center rounded-md border border-line bg-sheet px-2 font-medium whitespace-nowrap hover:border-ink-2 ${className}`}
    >
      {children}
    </a>
  );
}
