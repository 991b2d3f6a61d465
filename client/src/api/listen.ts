import { rightsChanged } from './client';

/**
 * Listens to a stream of the server's events until the returned function is called. The server ends the stream of somebody
 * whose rights have changed: whoever was cut off asks again what they may do.
 */
export function listen<T>(
  address: string,
  name: string,
  on: { event: (event: T) => void; lost?: () => void },
) {
  const source = new EventSource(address);
  let isLost = false;
  const askAgain = () => window.dispatchEvent(new Event(rightsChanged));
  source.addEventListener(name, (message) =>
    on.event(JSON.parse((message as MessageEvent<string>).data) as T),
  );
  source.onopen = () => {
    if (isLost) askAgain();
    isLost = false;
  };
  source.onerror = () => {
    isLost = true;
    // The browser tries again by itself, but not after a refusal.
    if (source.readyState === EventSource.CLOSED) askAgain();
    on.lost?.();
  };
  return () => source.close();
}
