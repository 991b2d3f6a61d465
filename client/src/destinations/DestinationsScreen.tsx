export function DestinationsScreen(_: { destination?: string; slot?: string }) {
  return null;
}
