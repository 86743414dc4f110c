import { Emblem } from '@/ui/shell/emblem';

/** Whose page this is, above everything. */
export function ReaderBrand() {
  return (
    <div className="brand">
      <Emblem />
      Embargo
    </div>
  );
}
