import dayjs from 'dayjs';
import { TimePicker } from '@mui/x-date-pickers/TimePicker';
import type { ClockFieldProps } from '@/ui/time/moment-field';
import { PickerFrame } from '@/ui/time/picker-frame';
import { pickerField, pickerSlots } from '@/ui/time/picker-parts';
import { useHalfTyped } from '@/ui/time/use-half-typed';

/** A time of day as it is typed or picked: `09:00`. */
export default function ClockPicker({
  label,
  minute,
  onChange,
  hint,
  required = false,
}: ClockFieldProps) {
  const given = minute === null ? null : dayjs().startOf('day').minute(minute);
  const field = useHalfTyped(given, (next) => {
    onChange(next === null ? null : next.hour() * 60 + next.minute());
  });
  return (
    <PickerFrame className="picker clock" onBlur={field.onBlur}>
      <TimePicker
        label={label}
        value={field.value}
        onChange={field.onChange}
        format="HH:mm"
        ampm={false}
        timeSteps={{ minutes: 15 }}
        slots={pickerSlots}
        slotProps={{
          textField: {
            ...pickerField,
            error: field.isHalf,
            helperText: hint ?? '',
          },
          field: { clearable: !required, onClear: field.onClear },
        }}
      />
    </PickerFrame>
  );
}
