'use client';
/**
 * Brings files in, several at once: by drop, file chooser, camera or clipboard; the whole of `children` takes the drop.
 * Pictures go to the server as they are; pages of a PDF are rendered first, of a TIFF or PDF chosen first; SVG and DXF
 * are read as outlines. Shows progress, can be stopped, and says at its place what was wrong with a file.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { colours } from '@/ui/colours';
import { RequestError } from '@/ui/requests';
import { words } from '@/words';
import { type Brought, bringIn, type Progress } from './bring-in-files';
import { PageChooser, type PageRequest } from './PageChooser';

const accepted =
  'image/png,image/jpeg,image/webp,image/gif,image/tiff,image/bmp,application/pdf,image/svg+xml,.png,.jpg,.jpeg,.webp,.gif,.tif,.tiff,.bmp,.pdf,.svg,.dxf,.plt,.hpgl';

export interface IncomingState {
  /** Opens the file chooser. */
  readonly choose: () => void;
  /** Opens a phone's camera; on a computer the file chooser. */
  readonly photograph: () => void;
  /** Takes what is on the clipboard. */
  readonly paste: () => void;
  /** Takes files from elsewhere, such as a scanner. */
  readonly take: (files: readonly File[], known?: { readonly dpi: number; readonly source: 'scanner' }) => void;
  readonly busy: boolean;
  /** Progress, a question or the last message, to be put where the person looks. */
  readonly news: ReactNode;
}

interface Props {
  /** Shown over everything while a file hovers. */
  readonly invitation: string;
  readonly onBrought: (brought: Brought) => Promise<void> | void;
  readonly children: (state: IncomingState) => ReactNode;
}

export function Incoming({ invitation, onBrought, children }: Props) {
  const [progress, setProgress] = useState<Progress | null>(null);
  const [messages, setMessages] = useState<readonly string[]>([]);
  const [question, setQuestion] = useState<{
    readonly request: PageRequest;
    readonly answer: (pages: PageRequest['answer']) => void;
  } | null>(null);
  const stop = useRef<AbortController | null>(null);
  const camera = useRef<HTMLInputElement>(null);
  const busy = progress !== null || question !== null;
  const latest = useRef({ busy, onBrought });
  latest.current = { busy, onBrought };

  const take = useCallback(async (files: readonly File[], known?: { dpi: number; source: 'scanner' }) => {
    if (files.length === 0 || latest.current.busy) return;
    setMessages([]);
    stop.current = new AbortController();
    const { signal } = stop.current;
    let isDone = false;
    // A worker's last words may come after it was stopped.
    const onProgress = (now: Progress) => {
      if (!isDone && !signal.aborted) setProgress(now);
    };
    const ask = (request: PageRequest) =>
      new Promise<PageRequest['answer']>((resolve) => {
        setProgress(null);
        setQuestion({
          request,
          answer: (pages) => {
            setQuestion(null);
            resolve(pages);
          },
        });
      });
    try {
      const brought = await bringIn(files, { ask, onProgress, signal, known: known ?? null });
      setMessages(brought.messages);
      if (brought.pictures.length > 0 || brought.drawings.length > 0) await latest.current.onBrought(brought);
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setMessages([error.message]);
    } finally {
      isDone = true;
      setProgress(null);
      setQuestion(null);
    }
  }, []);

  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      void take(files);
    };
    window.addEventListener('paste', onPaste);
    return () => window.removeEventListener('paste', onPaste);
  }, [take]);

  const paste = async () => {
    try {
      const items = await navigator.clipboard.read();
      const files = await Promise.all(
        items.flatMap((item) => {
          const type = item.types.find((t) => t.startsWith('image/'));
          return type ? [item.getType(type).then((blob) => new File([blob], `pasted.${type.slice(6).replace(/\+.*/, '')}`, { type }))] : [];
        }),
      );
      if (files.length === 0) setMessages([words.bringIn.clipboardEmpty]);
      else void take(files);
    } catch {
      setMessages([words.bringIn.clipboardBlocked]);
    }
  };

  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: (files) => void take(files),
    noClick: true,
    noKeyboard: true,
    multiple: true,
  });
  const news = question ? (
    <PageChooser request={question.request} onAnswer={question.answer} />
  ) : progress ? (
    <Box role="status" sx={{ display: 'grid', gap: 1 }}>
      <Typography variant="body2">{progress.word}</Typography>
      <LinearProgress variant={progress.share === null ? 'indeterminate' : 'determinate'} value={(progress.share ?? 0) * 100} />
      <Button size="small" sx={{ justifySelf: 'start' }} onClick={() => stop.current?.abort()}>
        {words.bringIn.stop}
      </Button>
    </Box>
  ) : messages.length > 0 ? (
    <Alert severity="error" onClose={() => setMessages([])}>
      {messages.map((message) => (
        <Box key={message} sx={{ '& + &': { mt: 1 } }}>
          {message}
        </Box>
      ))}
    </Alert>
  ) : null;
  return (
    <Box {...getRootProps()} sx={{ minHeight: '100%', height: '100%', position: 'relative' }}>
      <input {...getInputProps({ accept: accepted, 'aria-label': words.bringIn.pictureFile })} />
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        aria-label={words.bringIn.photograph}
        hidden
        onChange={(event) => {
          void take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      {children({
        choose: open,
        photograph: () => camera.current?.click(),
        paste: () => void paste(),
        take: (files, known) => void take(files, known),
        busy,
        news,
      })}
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
