import type { RecipientProblemMessages } from '@/words/recipient-problems/recipient-problems';

export const fr: RecipientProblemMessages = {
  problems: {
    'request-too-large': 'Cette requête est trop grande.',
    'request-unreadable': 'Cette requête n’a pas pu être lue.',
    'wrong-origin':
      'Cette requête ne venait pas des pages d’Embargo ; elle n’a donc pas été exécutée.',
    'signed-out': 'Prouvez à nouveau votre adresse e-mail dans ce navigateur.',
    'address-unproven': 'Prouvez à nouveau votre adresse e-mail dans ce navigateur.',
    'act-key-used': 'Cette clé a servi à une autre requête.',
    'done-before': 'C’est déjà fait. Rechargez la page pour le voir.',
    'not-sent-here':
      'Ceci n’a pas été envoyé à cette adresse e-mail ; il n’y a donc personne à qui demander.',
    'asked-time-past': 'Le temps que vous demandez est déjà passé.',
    'right-held': 'Vous pouvez déjà le faire.',
    'nothing-to-reply':
      'Votre réponse n’a pas été envoyée, car personne ne l’attend : il y a déjà été répondu.',
    'asked-before': 'Vous l’avez déjà demandé. La réponse viendra.',
    'requests-waiting':
      'Plusieurs de vos demandes attendent. Laissez d’abord l’expéditeur y répondre.',
    'device-key-unusable':
      'Ce navigateur n’a pas produit de clé utilisable. Rechargez la page et réessayez.',
    'notice-due': 'Un avis est à accepter avant l’ouverture.',
    'notice-changed': 'L’avis a été reformulé entre-temps. Rechargez la page pour le lire.',
    'passkey-refused':
      'Cette clé d’accès n’a pas été acceptée. Réessayez, ou prouvez votre adresse e-mail avec un code.',
    'passkey-needs-proof':
      'Prouvez encore une fois votre adresse e-mail avec un code avant de créer votre première clé d’accès.',
    'passkey-first': 'Utilisez d’abord l’une de vos clés d’accès sur cet appareil.',
    'passkey-unknown': 'Cette clé d’accès n’est pas l’une des vôtres, ou elle a déjà été retirée.',
    'device-unknown': 'Cet appareil n’est pas l’un des vôtres, ou il y a déjà été mis fin.',
    'document-gone': 'Ce document n’est plus ici.',
    'link-unknown':
      'Ce lien ne fonctionne pas. Copiez le lien entier depuis le message et ouvrez-le de nouveau.',
    'open-it-first': 'Ouvrez-le une fois vous-même avant de le transmettre.',
    'given-already': 'Cette personne l’a déjà. Rien n’a été changé.',
    'content-elsewhere':
      'Ce document a été chiffré sur l’appareil de l’expéditeur : il se lit uniquement ' +
      'depuis son fichier protégé. Ouvrez le fichier reçu.',
    'not-on-own-machine':
      'Ce document ne s’ouvre pas sur votre propre appareil. Lisez ses pages ici.',
    'file-of-another-version':
      'Ce fichier contient une version antérieure du document. Lisez la version actuelle ici, ou ' +
      'demandez son fichier à l’expéditeur.',
    'not-open-here': 'Ce document n’est pas ouvert ici. Ouvrez-le de nouveau par son lien.',
    'revision-too-large':
      'Ce fichier dépasse 96 Mio, le maximum que l’on peut renvoyer ici. Écrivez à l’expéditeur.',
    'file-cut-off':
      'Le fichier n’est pas arrivé entier. Rien n’a été gardé. Envoyez-le de nouveau.',
    'revisions-waiting':
      'Cinq de vos fichiers attendent une réponse. Écrivez à l’expéditeur avant d’en envoyer un autre.',
    'ended-meanwhile': 'L’accès a pris fin pendant la préparation.',
    'no-comment': 'Ce commentaire n’est plus là.',
    'comments-full': 'Ce document ne peut plus recevoir de commentaires. Écrivez à l’expéditeur.',
    'no-such-pages': 'Ce document n’a pas ces pages.',
    'reason-needed': 'Il faut une raison ici. Rien n’a été changé.',
    'rows-not-ours': 'Ceci ne peut pas être montré actuellement. Écrivez à l’expéditeur.',
    'link-ended': 'Ce lien ne peut plus être ouvert. Demandez à la personne qui vous l’a donné.',
    'ask-in-vain': {
      revoked: 'L’expéditeur a mis fin à votre accès. Vous pouvez toujours lui écrire.',
      'document-revoked': 'L’expéditeur a retiré ce document. Vous pouvez toujours lui écrire.',
      'key-destroyed': 'Ce document a été détruit. Vous pouvez toujours écrire à l’expéditeur.',
      'recipient-blocked':
        'L’accès de cette adresse e-mail a été bloqué. Vous pouvez toujours écrire à l’expéditeur.',
      'condition-unknown':
        'Ce document ne peut pas être ouvert actuellement. Vous pouvez toujours écrire à l’expéditeur.',
      other: 'Ceci ne peut pas être ouvert. Vous pouvez toujours écrire à l’expéditeur.',
    },
    'too-many-tries': 'Trop d’essais. Attendez {minutes} min et réessayez.',
    'pass-on-refused': {
      'not-given': 'Vous ne pouvez pas transmettre ceci.',
      'too-many': 'Vous l’avez déjà transmis à autant de personnes que permis.',
      'not-listed':
        'Vous ne pouvez le transmettre qu’à des personnes de certaines organisations, et cette adresse e-mail ' +
        'n’est d’aucune.',
      'more-rights': 'Vous ne pouvez pas transmettre plus que ce que vous pouvez vous-même.',
      longer: 'Vous ne pouvez pas le transmettre pour plus longtemps que vous ne l’avez.',
      themselves: 'C’est vous.',
    },
    'code-wrong': {
      left: 'Ce n’est pas le code. Il vous reste {left, plural, one {# essai} other {# essais}}.',
      none: 'Ce code ne fonctionne plus, ou a été demandé dans un autre navigateur. Demandez-en un nouveau.',
    },
  },
  content: {
    EMPTY_FILE: 'Ce fichier est vide.',
    NOT_A_PDF: 'Ce fichier n’est pas un PDF.',
    NOT_OF_ITS_NAME: 'Ce que contient ce fichier n’est pas ce que dit son nom.',
    FILE_DAMAGED: 'Ce fichier est endommagé et ne peut pas être ouvert.',
    FILE_LOCKED:
      'Ce fichier demande un mot de passe, ou est d’un type ancien. Enregistrez-le sans mot de passe et ' +
      'choisissez-le de nouveau.',
    FILE_TOO_LONG: 'Ce fichier est trop long pour être montré.',
    FILE_UNPACKS_TOO_FAR:
      'Ce fichier se décompresse en bien plus qu’il ne contient ; il n’a pas été accepté.',
    FILE_TOO_DEMANDING: 'Montrer ce fichier prend trop de temps ou de mémoire ; cela a été arrêté.',
    PICTURE_TOO_LARGE:
      'Cette image a plus de 200 millions de pixels. Réduisez-la et choisissez-la de nouveau.',
    PROTECTED_ALREADY: 'Ce fichier est déjà protégé. Utilisez le document qu’il contient.',
    PDF_DAMAGED: 'Ce PDF est endommagé et ne peut pas être ouvert.',
    PDF_LOCKED: 'Ce PDF demande un mot de passe. Enregistrez-le sans et choisissez-le de nouveau.',
    PDF_TOO_DEMANDING: 'Dessiner ce PDF prend trop de temps ou de mémoire ; cela a été arrêté.',
    PDF_TOO_MANY_PAGES: 'Ce PDF a plus de 20 000 pages.',
    PDF_UNPACKS_TOO_FAR:
      'Ce PDF se décompresse en bien plus qu’il ne contient ; il n’a pas été accepté.',
    CONTENT_DAMAGED:
      'Le contenu enregistré de ce document est endommagé. L’expéditeur peut l’envoyer de nouveau.',
    NO_SUCH_PAGE: 'Ce document n’a pas cette page.',
  },
  other: {
    check: 'Vérifiez ce que vous avez saisi.',
    address: 'Ce n’est pas une adresse e-mail.',
    code: 'Le code a six chiffres.',
    noRoom:
      'Ceci ne peut pas être montré actuellement : le serveur n’a plus de place. Réessayez plus tard, ou ' +
      'écrivez à l’expéditeur.',
    harmed:
      'Ceci ne peut pas être montré actuellement : quelque chose est endommagé sur le serveur. Écrivez à ' +
      'l’expéditeur.',
    failed: 'Quelque chose s’est mal passé chez nous. Rien n’a été changé.',
  },
};
