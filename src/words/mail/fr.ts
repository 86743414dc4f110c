import type { MailMessages } from '@/words/mail/mail-words';

export const fr: MailMessages = {
  sent: {
    intro:
      '{sender}, {organisation}, vous a envoyé {count, plural, one {un document protégé} ' +
      'other {des documents protégés}} :',
    introClear:
      '{sender}, {organisation}, vous a envoyé {count, plural, one {un document} other {des documents}} :',
    titleUntil: '{title}, jusqu’au {end}',
    titleNoEnd: '{title}, sans limite de temps',
    toRead:
      'Pour lire, ouvrez ce lien et prouvez que {address} est votre adresse e-mail. Vous recevrez un code à six ' +
      'chiffres par e-mail ; il ne faut ni compte ni installation.',
    attached:
      '{count, plural, one {Il est joint, chiffré, sous forme de PDF dont la première page dit comment l’ouvrir} ' +
      'other {Ils sont joints, chiffrés, sous forme de PDF dont la première page dit ' +
      'comment ouvrir chacun}} : suivez ' +
      'son lien, ou visez son code avec un téléphone, et prouvez que {address} est ' +
      'votre adresse e-mail. Vous recevrez ' +
      'un code à six chiffres par e-mail ; il ne faut ni compte ni installation.',
    attachedAsWell:
      '{count, plural, one {Il est aussi joint, chiffré, sous forme de PDF} ' +
      'other {Ils sont aussi joints, chiffrés, sous forme de PDF}} ; la première page mène au même endroit.',
    attachedClear: '{count, plural, one {Il est joint.} other {Ils sont joints.}}',
    from: 'Vous pouvez {count, plural, one {l’ouvrir} other {les ouvrir}} à partir du {from}.',
    until: 'Vous pouvez {count, plural, one {l’ouvrir} other {les ouvrir}} jusqu’au {until}.',
    fromUntil:
      'Vous pouvez {count, plural, one {l’ouvrir} other {les ouvrir}} du {from} jusqu’au {until}.',
    onlyYou:
      'Ceci n’est que pour vous : toute autre personne qui l’ouvre doit prouver cette même adresse e-mail.',
    may: 'Vous pouvez {verbs}.',
    genuine: 'Le lien mène à {host}. Personne ne vous y demandera de mot de passe.',
    open: '{count, plural, one {Ouvrir le document} other {Ouvrir les documents}}',
    unexpected:
      'Si vous ne l’attendiez pas, demandez à l’expéditeur par une voie que vous connaissez déjà.',
    passedOn: 'Transmis : {subject}',
    hiddenTitle: 'Document {reference}',
  },
  ends: { none: 'nouvel ordre', several: 'aux dates indiquées pour chacun' },
  code: {
    subject: '{code} est votre code',
    code: 'Votre code est {code}',
    enter:
      'Saisissez-le dans les {minutes} minutes sur la page qui l’a demandé. Il ne fonctionne que là.',
    asked:
      'Il a été demandé le {when}, depuis {place}. Si ce n’était pas vous, ne faites ' +
      'rien : sans le code, personne ne ' +
      'peut continuer. Personne ne vous le demandera jamais.',
    near: '{network}, près de {place}',
  },
  question: {
    subject: 'Une question sur votre demande à propos de « {title} »',
    asks: '{sender} a une question avant de répondre à votre demande à propos de « {title} » :',
    reply: 'Répondez là où vous avez demandé, par le même lien qu’auparavant :',
  },
  revision: {
    subject: 'Votre fichier modifié pour « {title} »',
    accepted:
      '{sender} a accepté votre fichier modifié. Il s’ouvre désormais pour tous ceux qui ont « {title} ».',
    declined:
      '{sender} ne retient pas votre fichier modifié pour « {title} ». Le document reste tel quel.',
  },
  version: {
    subject: '« {title} » a été remplacé par une nouvelle version',
    replaced:
      '{sender} a remplacé « {title} » par une nouvelle version. Vos droits et le lien restent :',
  },
  answer: {
    subject: 'Votre demande à propos de « {title} »',
    given: '{sender} vous a accordé ce que vous demandiez, pour « {title} ».',
    givenInPart: '{sender} vous a accordé une partie de ce que vous demandiez, pour « {title} ».',
    declined: '{sender} a refusé ce que vous demandiez, pour « {title} ».',
    answered: '{sender} a répondu à votre message à propos de « {title} ».',
    valid: 'C’est valable jusqu’au {until}.',
    sameLink: 'Utilisez le même lien qu’auparavant :',
  },
  ending: {
    subject:
      '{count, plural, one {Votre accès à « {title} » se termine bientôt} ' +
      'other {Votre accès à certains documents se termine bientôt}}',
    intro: '{sender}, {organisation}, vous a envoyé ce qui se termine bientôt :',
    each: '« {title} », jusqu’au {until}',
    more: 'Ouvrez-le, ou demandez plus de temps, ici :',
  },
};
