'use client';

import { useDropzone } from 'react-dropzone';
import Button from '@mui/material/Button';

/** Takes one file, dropped or picked; nothing of it is sent anywhere. */
export function FileDrop({
  words,
  choose = 'Choose a file',
  busy,
  onFile,
}: {
  readonly words: string;
  /** What the button says. */
  readonly choose?: string;
  readonly busy: boolean;
  readonly onFile: (file: File) => void;
}) {
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    multiple: false,
    noClick: true,
    disabled: busy,
    onDrop: ([file]) => {
      if (file !== undefined) onFile(file);
    },
  });
  return (
    <div {...getRootProps({ className: `drop${isDragActive ? ' over' : ''}` })}>
      <input {...getInputProps({ 'aria-label': words })} />
      <div className="row">
        <b>{words}</b>
        <span className="gap" />
        <Button variant="outlined" disabled={busy} onClick={open}>
          {choose}
        </Button>
      </div>
    </div>
  );
}
