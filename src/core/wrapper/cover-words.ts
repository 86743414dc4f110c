/** The words of a cover page in one language. */
export type CoverWords = {
  readonly heading: string;
  readonly from: (sender: string, organisation: string) => string;
  readonly reference: string;
  readonly title: string;
  readonly sentTo: string;
  readonly howTo: string;
  /** Three lines, one step each. */
  readonly steps: readonly [string, string, string];
  readonly code: string;
  readonly ask: (sender: string, address: string) => string;
  readonly inside: string;
};

const words: Readonly<Record<string, CoverWords>> = {
  en: {
    heading: 'This document was sent to you protected',
    from: (sender, organisation) => `${sender} of ${organisation} sent it to you.`,
    reference: 'Reference',
    title: 'Title',
    sentTo: 'Sent to',
    howTo: 'How to open it',
    steps: [
      'Open the page below, on a computer or a phone. There is nothing to install.',
      'Enter the email address it was sent to. You will get a six-digit code by email that shows it is yours.',
      'Read the document there. The page says what you may do with it, and until when.',
    ],
    code: 'The same page, for a phone',
    ask: (sender, address) =>
      `If you did not expect this or cannot open it, ask ${sender}, ${address}, by a way you already know.`,
    inside:
      'The document is inside this file, encrypted. It is an age file, an open format (age-encryption.org/v1).',
  },
  de: {
    heading: 'Dieses Dokument wurde Ihnen geschützt gesendet',
    from: (sender, organisation) => `${sender} von ${organisation} hat es Ihnen gesendet.`,
    reference: 'Zeichen',
    title: 'Titel',
    sentTo: 'Gesendet an',
    howTo: 'So öffnen Sie es',
    steps: [
      'Öffnen Sie die Seite unten, am Rechner oder Telefon. Es ist nichts zu installieren.',
      'Geben Sie die Adresse ein, an die es ging. Sie erhalten einen Code, der zeigt, dass sie Ihnen gehört.',
      'Lesen Sie das Dokument dort. Die Seite sagt, was Sie damit tun dürfen, und bis wann.',
    ],
    code: 'Dieselbe Seite fürs Telefon',
    ask: (sender, address) =>
      `Wenn Sie dies nicht erwartet haben oder nicht öffnen können, fragen Sie ${sender}, ` +
      `${address}, auf einem Weg, den Sie schon kennen.`,
    inside:
      'Das Dokument liegt verschlüsselt in dieser Datei, als age-Datei, einem offenen Format (age-encryption.org/v1).',
  },
  fr: {
    heading: 'Ce document vous a été envoyé protégé',
    from: (sender, organisation) => `${sender}, ${organisation}, vous l’a envoyé.`,
    reference: 'Référence',
    title: 'Titre',
    sentTo: 'Envoyé à',
    howTo: 'Comment l’ouvrir',
    steps: [
      'Ouvrez la page ci-dessous, sur un ordinateur ou un téléphone. Il n’y a rien à installer.',
      'Saisissez l’adresse à laquelle il a été envoyé. Vous y recevrez un code qui montre qu’elle est à vous.',
      'Lisez-y le document. La page dit ce que vous pouvez en faire, et jusqu’à quand.',
    ],
    code: 'La même page, pour un téléphone',
    ask: (sender, address) =>
      `Si vous ne l’attendiez pas ou ne pouvez pas l’ouvrir, demandez à ${sender}, ${address}, ` +
      'par une voie que vous connaissez déjà.',
    inside:
      'Le document est dans ce fichier, chiffré. C’est un fichier age, un format ouvert (age-encryption.org/v1).',
  },
  es: {
    heading: 'Este documento se le ha enviado protegido',
    from: (sender, organisation) => `${sender}, de ${organisation}, se lo ha enviado.`,
    reference: 'Referencia',
    title: 'Título',
    sentTo: 'Enviado a',
    howTo: 'Cómo abrirlo',
    steps: [
      'Abra la página de abajo, en un ordenador o un teléfono. No hay nada que instalar.',
      'Escriba la dirección de correo a la que se envió. Recibirá un código que demuestra que es suya.',
      'Lea allí el documento. La página dice qué puede hacer con él, y hasta cuándo.',
    ],
    code: 'La misma página, para un teléfono',
    ask: (sender, address) =>
      `Si no lo esperaba o no puede abrirlo, pregunte a ${sender}, ${address}, por una vía que ya conozca.`,
    inside:
      'El documento está cifrado dentro de este archivo. Es un archivo age, un formato abierto ' +
      '(age-encryption.org/v1).',
  },
  ja: {
    heading: '保護された文書が届いています',
    from: (sender, organisation) => `${organisation}の${sender}さんから送られました。`,
    reference: '番号',
    title: '題名',
    sentTo: '宛先',
    howTo: '開き方',
    steps: [
      '下のページをパソコンかスマートフォンで開いてください。インストールは必要ありません。',
      '届いたメールアドレスを入力してください。ご自身のアドレスであることを確かめる6桁のコードをメールでお送りします。',
      'そのページで文書をお読みください。できることと期限も、そこに書かれています。',
    ],
    code: '同じページ（スマートフォン用）',
    ask: (sender, address) =>
      `お心当たりがない場合や開けない場合は、すでにご存じの方法で${sender}さん（${address}）にお尋ねください。`,
    inside:
      '文書は暗号化されてこのファイルの中にあります。公開された形式（age-encryption.org/v1）のageファイルです。',
  },
  nb: {
    heading: 'Dette dokumentet er sendt deg beskyttet',
    from: (sender, organisation) => `${sender} i ${organisation} har sendt det til deg.`,
    reference: 'Referanse',
    title: 'Tittel',
    sentTo: 'Sendt til',
    howTo: 'Slik åpner du det',
    steps: [
      'Åpne siden nedenfor, på datamaskin eller telefon. Det er ingenting å installere.',
      'Skriv adressen det ble sendt til. Du får en kode som viser at den er din.',
      'Les dokumentet der. Siden sier hva du kan gjøre med det, og hvor lenge.',
    ],
    code: 'Den samme siden, for en telefon',
    ask: (sender, address) =>
      `Hvis du ikke ventet dette eller ikke får åpnet det, spør ${sender}, ${address}, ` +
      'på en måte du allerede kjenner.',
    inside:
      'Dokumentet ligger kryptert i denne filen, som en age-fil, et åpent format (age-encryption.org/v1).',
  },
};

/** Every letter of the words in a language, to find the fonts that have them. */
export function coverLetters(language: string | null): string {
  const found = coverWords(language).words;
  const [from, ask] = [found.from('', ''), found.ask('', '')];
  const { heading, reference, title, sentTo, howTo, steps, code, inside } = found;
  return [heading, from, reference, title, sentTo, howTo, ...steps, code, ask, inside].join('');
}

/** The languages a cover page speaks. */
export const coverLanguages: readonly string[] = Object.keys(words);

/**
 * The words for a language tag (BCP 47), and the tag of the language they are in: English where
 * the recipient's is not among ours.
 */
export function coverWords(language: string | null): {
  readonly language: string;
  readonly words: CoverWords;
} {
  const primary = (language ?? 'en').split('-')[0]?.toLowerCase() ?? 'en';
  const known = primary === 'no' || primary === 'nn' ? 'nb' : primary;
  const found = words[known];
  const english = words['en'];
  if (found !== undefined) return { language: known, words: found };
  if (english === undefined) throw new Error('the cover page has no English words');
  return { language: 'en', words: english };
}
