import type { FocusEventHandler, ReactNode } from 'react';
import 'dayjs/locale/en-gb';
import 'dayjs/locale/de';
import 'dayjs/locale/es';
import 'dayjs/locale/fr';
import 'dayjs/locale/ja';
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import { deDE, enUS, esES, frFR, jaJP } from '@mui/x-date-pickers/locales';
import type { Language } from '@/core/base/languages';
import { useSeparators } from '@/ui/time/use-separators';
import { localeOf } from '@/words/reader/reader-words';
import { useWords } from '@/ui/words/use-words';

const textsOf = ({ components }: typeof deDE) =>
  components.MuiLocalizationProvider.defaultProps.localeText;
/** What the library says of its own accord, in the reader's languages. */
const CALENDARS: Readonly<Record<Language, ReturnType<typeof textsOf>>> = {
  en: textsOf(enUS),
  de: textsOf(deDE),
  fr: textsOf(frFR),
  es: textsOf(esES),
  ja: textsOf(jaJP),
};

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
  const { language, say } = useWords();
  const emptySections = {
    fieldDayPlaceholder: () => say('moment.day'),
    fieldMonthPlaceholder: () => say('moment.month'),
    fieldYearPlaceholder: () => say('moment.year'),
    fieldHoursPlaceholder: () => say('moment.hours'),
    fieldMinutesPlaceholder: () => say('moment.minutes'),
    okButtonLabel: say('moment.set'),
  };
  return (
    <div className={className} onKeyDownCapture={goOn} onBlur={onBlur}>
      <LocalizationProvider
        dateAdapter={AdapterDayjs}
        adapterLocale={localeOf(language).toLowerCase()}
        localeText={{ ...CALENDARS[language], ...emptySections }}
      >
        {children}
      </LocalizationProvider>
    </div>
  );
}
