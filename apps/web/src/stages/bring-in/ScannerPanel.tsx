'use client';
/**
 * A scanner in the docket: preview, the area to scan, the resolution, and the scan itself.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useEffect, useRef, useState } from 'react';
import { colours } from '@/ui/colours';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { type Area, previewOf, type Scanner, ScannerError, scan, scannersAt } from './scanning';

export function ScannerPanel({
  service,
  onScanned,
  onClose,
}: {
  service: string;
  onScanned: (file: File, dpi: number) => void;
  onClose: () => void;
}) {
  const [scanners, setScanners] = useState<readonly Scanner[] | null>(null);
  const [id, setId] = useState<string | null>(null);
  const [dpi, setDpi] = useState(300);
  const [preview, setPreview] = useState<string | null>(null);
  const [area, setArea] = useState<Area | null>(null);
  const [busy, setBusy] = useState<'preview' | 'scan' | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const stop = useRef<AbortController | null>(null);
  const scanner = scanners?.find((s) => s.id === id) ?? scanners?.[0] ?? null;
  useEffect(() => {
    void scannersAt(service).then(setScanners);
  }, [service]);
  useEffect(() => () => (preview ? URL.revokeObjectURL(preview) : undefined), [preview]);

  const doing = async (what: 'preview' | 'scan', work: () => Promise<void>) => {
    setBusy(what);
    setMessage(null);
    try {
      await work();
    } catch (error) {
      const isStopped = (error as Error).name === 'AbortError';
      if (!isStopped && !(error instanceof ScannerError)) throw error;
      setMessage(isStopped ? words.bringIn.stoppedNothingWasScanned : (error as Error).message);
    } finally {
      setBusy(null);
    }
  };
  const look = () =>
    scanner &&
    doing('preview', async () => {
      setPreview(URL.createObjectURL(await previewOf(service, scanner.id)));
      setArea(null);
    });
  const start = () =>
    scanner &&
    doing('scan', async () => {
      stop.current = new AbortController();
      const whole = { x: 0, y: 0, ...scanner.bed };
      const png = await scan(service, scanner.id, dpi, area ?? whole, stop.current.signal);
      onScanned(new File([png], `${scanner.name}.png`, { type: 'image/png' }), dpi);
    });
  if (scanners === null) return <LinearProgress aria-label={words.bringIn.lookingForScanners} />;
  if (!scanner) {
    return (
      <Alert severity="warning" variant="outlined" action={<Button onClick={onClose}>{words.bringIn.close}</Button>}>
        {words.bringIn.noScannerAnswersHereIsIts}
      </Alert>
    );
  }
  return (
    <Section title={words.bringIn.scan}>
      <Box sx={{ display: 'grid', gap: 1.5, mt: 1 }}>
        <TextField
          select
          label={words.bringIn.scanner}
          value={scanner.id}
          onChange={(event) => {
            setId(event.target.value);
            setPreview(null);
            setArea(null);
          }}
        >
          {scanners.map((s) => (
            <MenuItem key={s.id} value={s.id}>
              {s.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label={words.bringIn.resolution}
          value={scanner.resolutions.includes(dpi) ? dpi : scanner.resolutions[0]}
          onChange={(event) => setDpi(Number(event.target.value))}
        >
          {scanner.resolutions.map((r) => (
            <MenuItem key={r} value={r}>
              {words.bringIn.dpi(r)}
            </MenuItem>
          ))}
        </TextField>
        {preview && <Bed scanner={scanner} preview={preview} area={area} onArea={setArea} />}
        <Typography variant="caption" color="textSecondary">
          {area
            ? words.bringIn.scansPart(area.widthMm.toFixed(0), area.heightMm.toFixed(0))
            : words.bringIn.scansWholeBed(scanner.bed.widthMm.toFixed(0), scanner.bed.heightMm.toFixed(0), preview)}
        </Typography>
        {busy && <LinearProgress aria-label={busy === 'scan' ? words.bringIn.scanning : words.bringIn.previewing} />}
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button variant="outlined" disabled={busy !== null} onClick={() => void look()}>
            {words.bringIn.preview}
          </Button>
          <Button variant="contained" disabled={busy !== null} onClick={() => void start()}>
            {words.bringIn.scan}
          </Button>
          {busy === 'scan' ? (
            <Button onClick={() => stop.current?.abort()}>{words.bringIn.stop}</Button>
          ) : (
            <Button onClick={onClose}>{words.bringIn.close}</Button>
          )}
        </Box>
        {message && <Alert severity="error">{message}</Alert>}
      </Box>
    </Section>
  );
}

/** The bed as previewed; dragging marks the area. */
function Bed({
  scanner,
  preview,
  area,
  onArea,
}: {
  scanner: Scanner;
  preview: string;
  area: Area | null;
  onArea: (area: Area | null) => void;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const from = useRef<{ x: number; y: number } | null>(null);
  const { widthMm, heightMm } = scanner.bed;
  const at = (event: React.PointerEvent) => {
    const box = (frame.current as HTMLDivElement).getBoundingClientRect();
    const share = (v: number, size: number) => Math.min(1, Math.max(0, v / size));
    return { x: share(event.clientX - box.left, box.width) * widthMm, y: share(event.clientY - box.top, box.height) * heightMm };
  };
  const percent = (v: number, whole: number) => `${(100 * v) / whole}%`;
  return (
    <Box
      ref={frame}
      aria-label={words.bringIn.previewOfTheBed}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = at(event);
        onArea(null);
      }}
      onPointerMove={(event) => {
        if (!from.current) return;
        const [a, b] = [from.current, at(event)];
        const size = { widthMm: Math.abs(b.x - a.x), heightMm: Math.abs(b.y - a.y) };
        if (size.widthMm > 5 && size.heightMm > 5) onArea({ x: Math.min(a.x, b.x), y: Math.min(a.y, b.y), ...size });
      }}
      onPointerUp={() => {
        from.current = null;
      }}
      sx={{
        position: 'relative',
        touchAction: 'none',
        cursor: 'crosshair',
        border: `1px solid ${colours.line}`,
        aspectRatio: `${widthMm} / ${heightMm}`,
      }}
    >
      <Box
        component="img"
        src={preview}
        alt={words.bringIn.whatLiesOnTheScanner}
        draggable={false}
        sx={{ width: '100%', height: '100%', display: 'block' }}
      />
      {area && (
        <Box
          sx={{
            position: 'absolute',
            border: `2px solid ${colours.verdigris}`,
            bgcolor: 'rgba(30, 123, 107, 0.12)',
            left: percent(area.x, widthMm),
            top: percent(area.y, heightMm),
            width: percent(area.widthMm, widthMm),
            height: percent(area.heightMm, heightMm),
          }}
        />
      )}
    </Box>
  );
}
