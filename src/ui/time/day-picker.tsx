import dayjs from 'dayjs';
import { DatePicker } from '@mui/x-date-pickers/DatePicker';
import type { DayFieldProps } from '@/ui/time/moment-field';
import { PickerFrame } from '@/ui/time/picker-frame';
import { pickerField, pickerSlots } from '@/ui/time/picker-parts';
import { useHalfTyped } from '@/ui/time/use-half-typed';

/** A day as it is typed or picked: `17 Dec 2026`. */
export default function DayPicker({ label, value, onChange, first, last }: DayFieldProps) {
  const field = useHalfTyped(value === null ? null : dayjs(value), (next) => {
    onChange(next === null ? null : next.format('YYYY-MM-DD'));
  });
  return (
    <PickerFrame className="picker day" onBlur={field.onBlur}>
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
            ...pickerField,
            error: field.isHalf,
          },
          field: { clearable: true, onClear: field.onClear, shouldRespectLeadingZeros: true },
        }}
      />
    </PickerFrame>
  );
}
