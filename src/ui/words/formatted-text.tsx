import { Fragment } from 'react';
import { formatted, type Run } from '@/core/message/formatted';

function FormattedRun({ run: { text, bold, italic, href } }: { readonly run: Run }) {
  if (href !== undefined)
    return (
      <a href={href} rel="noreferrer" target="_blank">
        {text}
      </a>
    );
  if (bold === true) return <b>{text}</b>;
  return italic === true ? <i>{text}</i> : text;
}

function Line({ runs }: { readonly runs: readonly Run[] }) {
  return runs.map((run, at) => <FormattedRun key={at} run={run} />);
}

/** A note as its sender formatted it: paragraphs, lists, bold, italic and links. */
export function FormattedText({ text }: { readonly text: string }) {
  return formatted(text).map(({ kind, lines }, at) =>
    kind === 'list' ? (
      <ul key={at}>
        {lines.map((runs, line) => (
          <li key={line}>
            <Line runs={runs} />
          </li>
        ))}
      </ul>
    ) : (
      <p key={at}>
        {lines.map((runs, line) => (
          <Fragment key={line}>
            {line > 0 && <br />}
            <Line runs={runs} />
          </Fragment>
        ))}
      </p>
    ),
  );
}
