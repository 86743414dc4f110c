import { expect, test } from 'vitest';
import { parseDeliveryStatus } from '@/core/mail/delivery-status';
import { statusWords } from '@/core/mail/status-words';

// RFC 3464, appendix B: a simple and a multi-recipient report, and one that was delayed.
const SIMPLE = `Reporting-MTA: dns; cs.utk.example

Original-Recipient: rfc822;louisl@larry.slip.umd.example
Final-Recipient: rfc822;louisl@larry.slip.umd.example
Action: failed
Status: 4.0.0
Diagnostic-Code: smtp; 426 connection timed out
Last-Attempt-Date: Thu, 7 Jul 1994 17:15:49 -0400
`;
const SEVERAL = `Reporting-MTA: dns; cs.utk.example
Original-Envelope-Id: msg_412

Final-Recipient: rfc822;arathib@vnet.ibm.example
Action: failed
Status: 5.0.0 (permanent failure)
Diagnostic-Code: smtp;
 550 'arathib@vnet.IBM.example' is not a
 registered gateway user
Remote-MTA: dns; vnet.ibm.example

Final-Recipient: rfc822;johnh@hpnjld.njd.example
Action: delayed
Status: 4.0.0 (hpnjld.njd.jp.example: host name lookup failure)
`;

test('a report names the address, what became of the message and what the last server answered', () => {
  expect(parseDeliveryStatus(SIMPLE)).toEqual({
    envelopeId: null,
    recipients: [
      {
        action: 'failed',
        status: '4.0.0',
        recipient: 'louisl@larry.slip.umd.example',
        diagnostic: '426 connection timed out',
      },
    ],
  });
});

test('folded lines are joined, comments after a status are not part of it, and lines may end in CRLF', () => {
  const expected = {
    envelopeId: 'msg_412',
    recipients: [
      {
        action: 'failed',
        status: '5.0.0',
        recipient: 'arathib@vnet.ibm.example',
        diagnostic: "550 'arathib@vnet.IBM.example' is not a registered gateway user",
      },
      {
        action: 'delayed',
        status: '4.0.0',
        recipient: 'johnh@hpnjld.njd.example',
        diagnostic: '',
      },
    ],
  };
  expect(parseDeliveryStatus(SEVERAL)).toEqual(expected);
  expect(parseDeliveryStatus(SEVERAL.replaceAll('\n', '\r\n'))).toEqual(expected);
});

test('what says nothing about a recipient is no report', () => {
  for (const text of ['', 'Hello', 'Reporting-MTA: dns; a.example\n\nSubject: x'])
    expect(parseDeliveryStatus(text)).toBeNull();
});

test('a code is told in words by its detail, or by its subject, whatever comes', () => {
  expect(statusWords('5.1.1')).toBe('There is no such mailbox.');
  expect(statusWords('5.7.99')).toBe('Their mail server refuses it.');
  for (const status of ['', '5', '5.0.0', '9.9.9', 'x.y.z'])
    expect(statusWords(status)).toMatch(/came back/);
});
