import dayjs from 'dayjs';
import { DateTimePicker } from '@mui/x-date-pickers/DateTimePicker';
import { zoneName } from '@/core/base/moment-text';
import type { MomentFieldProps } from '@/ui/time/moment-field';
import { PickerFrame } from '@/ui/time/picker-frame';
import { pickerField, pickerSlots } from '@/ui/time/picker-parts';
import { useHalfTyped } from '@/ui/time/use-half-typed';
import { useZone } from '@/ui/time/use-zone';
import { useWords } from '@/ui/words/use-words';

/** A moment as it is typed or picked: `17 Dec 2026 09:00`, in the zone of the person at the screen. */
export default function MomentPicker({
  label,
  value,
  onChange,
  none,
  hint,
  required = false,
}: MomentFieldProps) {
  const zone = useZone();
  const { language, say } = useWords();
  const field = useHalfTyped(value === null ? null : dayjs(value), (next) => {
    onChange(next === null ? null : next.startOf('minute').valueOf());
  });
  const short = value === null ? '' : zoneName(value, zone);
  const named = value === null ? none : short === zone ? zone : `${zone}, ${short}`;
  return (
    <PickerFrame className="picker" onBlur={field.onBlur}>
      <DateTimePicker
        label={label}
        value={field.value}
        onChange={field.onChange}
        format={language === 'ja' ? 'YYYY/M/D HH:mm' : 'D MMM YYYY HH:mm'}
        ampm={false}
        timeSteps={{ minutes: 15 }}
        slots={pickerSlots}
        slotProps={{
          textField: {
            ...pickerField,
            required,
            error: field.isHalf,
            helperText: field.isHalf ? say('moment.half') : (hint ?? named),
          },
          field: {
            clearable: !required,
            onClear: field.onClear,
            shouldRespectLeadingZeros: true,
          },
        }}
      />
    </PickerFrame>
  );
}
