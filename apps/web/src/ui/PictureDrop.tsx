'use client';
/**
 * Brings a picture in by drop or file chooser: the whole of `children` takes the drop. Shows progress, can be stopped,
 * and says at its place what was wrong with a file.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import type { Picture } from '@nuvet/core/job';
import { type ReactNode, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { RequestError, sendPicture } from './requests';
import { colours } from './theme';

const mostBytes = 400e6;

export interface PictureDropState {
  /** Opens the file chooser. */
  readonly choose: () => void;
  readonly busy: boolean;
  /** Progress or the last message, to be put where the person looks. */
  readonly news: ReactNode;
}

interface Props {
  /** Shown over everything while a file hovers. */
  readonly invitation: string;
  readonly onPicture: (picture: Picture) => Promise<void> | void;
  readonly children: (state: PictureDropState) => ReactNode;
}

export function PictureDrop({ invitation, onPicture, children }: Props) {
  const [share, setShare] = useState<number | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const stop = useRef<AbortController | null>(null);
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > mostBytes) return setMessage(`“${file.name}” is larger than ${mostBytes / 1e6} MB.`);
    setMessage(null);
    setShare(0);
    stop.current = new AbortController();
    try {
      await onPicture(await sendPicture(file, setShare, stop.current.signal));
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setMessage(error.message);
    } finally {
      setShare(null);
    }
  };
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: (files) => void take(files[0]),
    noClick: true,
    noKeyboard: true,
    multiple: false,
    disabled: share !== null,
  });
  const news =
    share !== null ? (
      <Box role="status" sx={{ display: 'grid', gap: 1 }}>
        <Typography variant="body2">
          {share < 1 ? `Bringing in the picture, ${Math.round(share * 100)} %` : 'Preparing the picture for every zoom …'}
        </Typography>
        <LinearProgress variant={share < 1 ? 'determinate' : 'indeterminate'} value={share * 100} />
        <Button size="small" sx={{ justifySelf: 'start' }} onClick={() => stop.current?.abort()}>
          Stop
        </Button>
      </Box>
    ) : message ? (
      <Alert severity="error" onClose={() => setMessage(null)}>
        {message}
      </Alert>
    ) : null;
  return (
    <Box {...getRootProps()} sx={{ minHeight: '100%', height: '100%', position: 'relative' }}>
      <input {...getInputProps({ accept: 'image/png,image/jpeg', 'aria-label': 'Picture file' })} />
      {children({ choose: open, busy: share !== null, news })}
      {isDragActive && (
        <Box
          sx={{
            position: 'absolute',
            inset: 12,
            zIndex: 2000,
            display: 'grid',
            placeItems: 'center',
            border: `3px dashed ${colours.verdigris}`,
            borderRadius: 3,
            bgcolor: 'rgba(255, 253, 248, 0.88)',
            pointerEvents: 'none',
          }}
        >
          <Typography variant="h1">{invitation}</Typography>
        </Box>
      )}
    </Box>
  );
}
