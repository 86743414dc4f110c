import type { ReactNode } from 'react';

/** What a row is called, to press: it selects the row or opens it. */
export function RowButton({
  plain = false,
  onPress,
  children,
}: {
  /** In the weight of what stands around it. */
  readonly plain?: boolean;
  readonly onPress: () => void;
  readonly children: ReactNode;
}) {
  return (
    <button type="button" className={plain ? 'row-button plain' : 'row-button'} onClick={onPress}>
      {children}
    </button>
  );
}
