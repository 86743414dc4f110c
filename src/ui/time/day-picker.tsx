import dayjs from 'dayjs';
import 'dayjs/locale/en-gb';
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import { DatePicker } from '@mui/x-date-pickers/DatePicker';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import type { DayFieldProps } from '@/ui/time/moment-field';
import { pickerSlots, pickerText } from '@/ui/time/picker-parts';
import { useHalfTyped } from '@/ui/time/use-half-typed';
import { useSeparators } from '@/ui/time/use-separators';

/** A day as it is typed or picked: `17 Dec 2026`. */
export default function DayPicker({ label, value, onChange, first, last }: DayFieldProps) {
  const field = useHalfTyped(value === null ? null : dayjs(value), (next) => {
    onChange(next === null ? null : next.format('YYYY-MM-DD'));
  });
  const goOn = useSeparators();
  return (
    <div className="picker day" onKeyDownCapture={goOn} onBlur={field.onBlur}>
      <LocalizationProvider
        dateAdapter={AdapterDayjs}
        adapterLocale="en-gb"
        localeText={pickerText}
      >
        <DatePicker
          label={label}
          value={field.value}
          onChange={field.onChange}
          format="D MMM YYYY"
          {...(first === undefined ? {} : { minDate: dayjs(first) })}
          {...(last === undefined ? {} : { maxDate: dayjs(last) })}
          slots={pickerSlots}
          slotProps={{
            textField: {
              size: 'small',
              fullWidth: true,
              error: field.isHalf,
              slotProps: { inputLabel: { shrink: true } },
            },
            field: { clearable: true, onClear: field.onClear, shouldRespectLeadingZeros: true },
          }}
        />
      </LocalizationProvider>
    </div>
  );
}
