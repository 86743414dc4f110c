import type { MailMessages } from '@/words/mail/mail-words';

export const ja: MailMessages = {
  sent: {
    intro:
      '{organisation}の{sender}さんから、保護された文書{count, plural, other {#件}}が届いています。',
    introClear:
      '{organisation}の{sender}さんから、文書{count, plural, other {#件}}が届いています。',
    titleUntil: '{title}（{end}まで）',
    titleNoEnd: '{title}（期限なし）',
    toRead:
      'お読みになるには、次のリンクを開き、{address}がご自身のメールアドレスであることを確認してください。' +
      '6桁のコードをメールでお送りします。アカウントの作成やソフトのインストールは必要ありません。',
    attached:
      '{count, plural, other {暗号化された文書をPDFとして添付しています。開き方は、それぞれの1ページ目に書かれています}}。' +
      'そのリンクを開くか、コードをスマートフォンで読み取り、{address}がご自身のメールアドレスであることを確認してください。' +
      '6桁のコードをメールでお送りします。アカウントの作成やソフトのインストールは必要ありません。',
    attachedAsWell:
      '{count, plural, other {暗号化された文書もPDFとして添付しています}}。1ページ目から同じページに進めます。',
    attachedClear: '{count, plural, other {文書を添付しています。}}',
    from: '{count, plural, other {{from}から開くことができます。}}',
    until: '{count, plural, other {{until}まで開くことができます。}}',
    fromUntil: '{count, plural, other {{from}から{until}まで開くことができます。}}',
    onlyYou:
      'これはあなただけに宛てたものです。ほかの人が開くには、同じメールアドレスの確認が必要です。',
    may: 'できること：{verbs}。',
    genuine: 'リンク先は{host}です。そこでパスワードをお尋ねすることはありません。',
    open: '{count, plural, other {文書を開く}}',
    unexpected: 'お心当たりがない場合は、すでにご存じの方法で送信者にお確かめください。',
    passedOn: '共有: {subject}',
    hiddenTitle: '文書 {reference}',
  },
  ends: { none: '別途お知らせするとき', several: 'それぞれに示した期限' },
  code: {
    subject: '{code} があなたのコードです',
    code: 'あなたのコード: {code}',
    enter: 'コードを求めたページに、{minutes}分以内に入力してください。ほかの場所では使えません。',
    asked:
      '{when}に{place}から求められました。お心当たりがない場合は、何もしないでください。コードがなければ誰も先に進めません。' +
      'コードをお尋ねすることは決してありません。',
    near: '{network}（{place}付近）',
  },
  question: {
    subject: '「{title}」についてのご依頼への質問',
    asks: '「{title}」についてのご依頼にお答えする前に、{sender}さんから質問があります。',
    reply: 'ご依頼をされたページで、前と同じリンクからお返事ください。',
  },
  revision: {
    subject: '「{title}」の変更済みファイルについて',
    accepted:
      '{sender} が変更済みファイルを受け入れました。今後は「{title}」をお持ちのすべての方にこのファイルが開かれます。',
    declined: '{sender} は「{title}」の変更済みファイルを採用しませんでした。文書は元のままです。',
  },
  version: {
    subject: '「{title}」が新しい版に置き換えられました',
    replaced:
      '{sender} が「{title}」を新しい版に置き換えました。許可されている操作は変わらず、同じリンクから開けます：',
  },
  answer: {
    subject: '「{title}」についてのご依頼',
    given: '{sender}さんが、「{title}」についてのご依頼を認めました。',
    givenInPart: '{sender}さんが、「{title}」についてのご依頼の一部を認めました。',
    declined: '{sender}さんが、「{title}」についてのご依頼をお断りしました。',
    answered: '{sender}さんが、「{title}」についてのメッセージにお答えしました。',
    valid: '{until}まで有効です。',
    sameLink: '前と同じリンクをお使いください。',
  },
  ending: {
    subject:
      '{count, plural, =1 {「{title}」の閲覧期限が近づいています} other {複数の文書の閲覧期限が近づいています}}',
    intro: '{organisation}の{sender}さんから届いた、次の文書の期限が近づいています。',
    each: '「{title}」（{until}まで）',
    more: '次のリンクから、文書を開いたり、期限の延長を依頼したりできます。',
  },
};
