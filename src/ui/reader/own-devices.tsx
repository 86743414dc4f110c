'use client';

import { useState, type SubmitEvent } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import type { OwnDevice } from '@/contracts/sent';
import type { DeviceId } from '@/core/base/ids';
import { sentenceOf } from '@/ui/http/call';
import { leave } from '@/ui/reader/leave';
import { readerCall } from '@/ui/reader/reader-call';
import { Problem } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';
import { useWords } from '@/ui/words/use-words';

type Props = {
  readonly devices: readonly OwnDevice[];
  readonly onDevices: (devices: readonly OwnDevice[]) => void;
};

/** Where this person has proven their address: each is named, and ended, by itself. */
export function OwnDevices({ devices, onDevices }: Props) {
  const { say } = useWords();
  const [renamed, setRenamed] = useState<DeviceId | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = async (path: string, body: unknown, done: string | null) => {
    setProblem(null);
    try {
      onDevices(
        await readerCall<readonly OwnDevice[]>('POST', `/api/v1/reader/devices/${path}`, body),
      );
      setSaid(done);
      setRenamed(null);
    } catch (error) {
      setProblem(sentenceOf(error));
    }
  };
  return (
    <section className="stack">
      <h2>{say('sent.devices')}</h2>
      <p className="quiet">{say('sent.devicesIntro')}</p>
      <Problem words={problem} />
      {said !== null && <p role="status">{said}</p>}
      <ul>
        {devices.map((device) => (
          <li key={device.id} className="row">
            <Device device={device} />
            {renamed === device.id ? (
              <NameForm
                device={device}
                onName={(name) => void ask(`${device.id}/name`, { name }, null)}
                onCancel={() => {
                  setRenamed(null);
                }}
              />
            ) : (
              <span className="row one-row">
                <Button
                  size="small"
                  aria-label={say('sent.renameNamed', { device: device.name })}
                  onClick={() => {
                    setRenamed(device.id);
                  }}
                >
                  {say('sent.rename')}
                </Button>
                <EndButton
                  device={device}
                  onEnd={() =>
                    void ask(`${device.id}/end`, {}, say('sent.ended', { device: device.name }))
                  }
                />
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** This one is signed out of, which leaves nothing in the browser either. */
function EndButton({ device, onEnd }: { readonly device: OwnDevice; readonly onEnd: () => void }) {
  const { say } = useWords();
  if (device.isThis)
    return (
      <Button size="small" onClick={() => void leave()}>
        {say('sent.signOut')}
      </Button>
    );
  return (
    <Button
      size="small"
      color="error"
      aria-label={say('sent.endDeviceNamed', { device: device.name })}
      onClick={onEnd}
    >
      {say('sent.endDevice')}
    </Button>
  );
}

function Device({
  device: { name, kept, since, until, openedAt, isThis },
}: {
  readonly device: OwnDevice;
}) {
  const { say } = useWords();
  const moment = (at: number) => () => <Moment at={at} />;
  return (
    <div>
      <b dir="auto">{name}</b>
      {isThis && <span className="current"> {say('sent.thisDevice')}</span>}
      <br />
      <span className="quiet small">
        {say.rich('sent.since', { when: moment(since) })}
        {' · '}
        {say.rich(kept ? 'sent.remembered' : 'sent.oneVisit', { end: moment(until) })}
        {openedAt !== null && <> · {say.rich('sent.lastOpened', { when: moment(openedAt) })}</>}
      </span>
    </div>
  );
}

function NameForm({
  device,
  onName,
  onCancel,
}: {
  readonly device: OwnDevice;
  readonly onName: (name: string) => void;
  readonly onCancel: () => void;
}) {
  const { say } = useWords();
  const [name, setName] = useState(device.name);
  return (
    <form
      className="row"
      onSubmit={(event: SubmitEvent) => {
        event.preventDefault();
        onName(name);
      }}
    >
      <TextField
        label={say('sent.nameDevice')}
        autoFocus
        value={name}
        onChange={({ target }) => {
          setName(target.value);
        }}
        slotProps={{ htmlInput: { maxLength: 60 } }}
      />
      <Button type="submit" variant="contained">
        {say('sent.save')}
      </Button>
      <Button onClick={onCancel}>{say('cancel')}</Button>
    </form>
  );
}
