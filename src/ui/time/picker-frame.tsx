import type { FocusEventHandler, ReactNode } from 'react';
import 'dayjs/locale/en-gb';
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import { pickerText } from '@/ui/time/picker-parts';
import { useSeparators } from '@/ui/time/use-separators';

/** What every picker stands in: weeks from Monday on, our words, and separators that go on. */
export function PickerFrame({
  className,
  onBlur,
  children,
}: {
  readonly className: string;
  readonly onBlur: FocusEventHandler<HTMLElement>;
  readonly children: ReactNode;
}) {
  const goOn = useSeparators();
  return (
    <div className={className} onKeyDownCapture={goOn} onBlur={onBlur}>
      <LocalizationProvider
        dateAdapter={AdapterDayjs}
        adapterLocale="en-gb"
        localeText={pickerText}
      >
        {children}
      </LocalizationProvider>
    </div>
  );
}
