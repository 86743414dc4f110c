import type { Said } from '@/ui/http/use-attempt';

/** Says what the last change came to. */
export function Notice({ said }: { readonly said: Said | null }) {
  if (said === null) return null;
  return (
    <p
      role={said.stops ? 'alert' : 'status'}
      className={`notice${said.stops ? ' stops' : ''}`}
      style={{ marginTop: 8 }}
    >
      {said.text}
    </p>
  );
}
