'use client';
import AddPhotoAlternateOutlined from '@mui/icons-material/AddPhotoAlternateOutlined';
import ContentPasteOutlined from '@mui/icons-material/ContentPasteOutlined';
import CropOutlined from '@mui/icons-material/CropOutlined';
import DocumentScannerOutlined from '@mui/icons-material/DocumentScannerOutlined';
import OpenWithOutlined from '@mui/icons-material/OpenWithOutlined';
import PhotoCameraOutlined from '@mui/icons-material/PhotoCameraOutlined';
import PolylineOutlined from '@mui/icons-material/PolylineOutlined';
import PrintOutlined from '@mui/icons-material/PrintOutlined';
import Link from '@mui/material/Link';
import Typography from '@mui/material/Typography';
import type { Picture } from '@nuvet/core/job';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { setTable, type Tool, takeTool, useTable } from '@/table/table-store';
import { Docket, Section, ToolCard } from '../Docket';
import { useJob } from '../job-store';
import type { StageName } from '../stage';
import { DrawingList } from './DrawingList';
import type { IncomingState } from './Incoming';
import { PictureCard } from './PictureCard';
import { PictureList } from './PictureList';
import { ScannerPanel } from './ScannerPanel';

interface Props {
  readonly picture: Picture | null;
  readonly incoming: IncomingState;
  /** Where the scanner service answers; null where there is none. */
  readonly scannerService: string | null;
  readonly onStage: (stage: StageName) => void;
}

export function BringIn({ picture, incoming, scannerService, onStage }: Props) {
  const job = useJob((s) => s.job);
  const tool = useTable((s) => s.tool);
  const [isScanning, setScanning] = useState(false);
  const take = (wanted: Tool) => takeTool(tool === wanted ? null : wanted);
  useHotkeys('escape', () => {
    const { taken } = useTable.getState();
    if (taken.length > 0) setTable({ taken: taken.slice(0, -1) });
    else takeTool(null);
  });
  const isEmpty = job.pictures.length === 0 && job.drawings.length === 0;
  return (
    <Docket
      tray={
        <>
          <ToolCard
            icon={<AddPhotoAlternateOutlined />}
            word="Picture"
            explanation="Choose files: PNG, JPEG, WebP, GIF, TIFF, BMP, PDF; SVG and DXF as outlines"
            disabled={incoming.busy}
            onClick={incoming.choose}
          />
          <ToolCard
            icon={<PhotoCameraOutlined />}
            word="Camera"
            explanation="Take a photograph with this phone or tablet"
            disabled={incoming.busy}
            onClick={incoming.photograph}
          />
          <ToolCard
            icon={<ContentPasteOutlined />}
            word="Paste"
            explanation="Take the picture on the clipboard (or press Ctrl+V)"
            disabled={incoming.busy}
            onClick={incoming.paste}
          />
          <ToolCard
            icon={<DocumentScannerOutlined />}
            word="Scanner"
            explanation={scannerService ? 'Scan from a flatbed scanner' : 'No scanner service is set up'}
            isInHand={isScanning}
            disabled={!scannerService || incoming.busy}
            onClick={() => setScanning(!isScanning)}
          />
          {picture && (
            <>
              <ToolCard
                icon={<CropOutlined />}
                word="Crop to a box"
                explanation="Click two corners; what lies outside stays in the file"
                isInHand={tool === 'crop-box'}
                onClick={() => take('crop-box')}
              />
              <ToolCard
                icon={<PolylineOutlined />}
                word="Crop by outline"
                explanation="Click round what you want; click the last place again to close"
                isInHand={tool === 'crop-outline'}
                onClick={() => take('crop-outline')}
              />
              <ToolCard
                icon={<OpenWithOutlined />}
                word="Move"
                explanation="Drag a picture about on the sheet"
                isInHand={tool === 'move-picture'}
                disabled={picture.locked}
                onClick={() => take('move-picture')}
              />
            </>
          )}
          <ToolCard
            icon={<PrintOutlined />}
            word="Scale card"
            explanation="Print the card that sizes a photograph by itself"
            onClick={() => window.open('/api/scale-card/a4', '_blank')}
          />
        </>
      }
      next={
        isEmpty
          ? { word: 'Choose a picture', onClick: incoming.choose, disabled: incoming.busy }
          : picture
            ? { word: 'Next: true up', onClick: () => onStage('true-up') }
            : { word: 'Next: prove', onClick: () => onStage('prove') }
      }
    >
      {incoming.news}
      {tool && <Hint tool={tool} />}
      {isScanning && scannerService && (
        <ScannerPanel
          service={scannerService}
          onClose={() => setScanning(false)}
          onScanned={(file, dpi) => {
            setScanning(false);
            incoming.take([file], { dpi, source: 'scanner' });
          }}
        />
      )}
      {isEmpty && (
        <Typography>
          Drop scans, photos or drawings on the table: PNG, JPEG, WebP, GIF, TIFF, BMP or PDF, up to 100 megapixels; SVG and DXF as
          outlines.
        </Typography>
      )}
      {job.pictures.length > 0 && <PictureList pictures={job.pictures} active={picture} />}
      {picture && <PictureCard picture={picture} />}
      {job.drawings.length > 0 && <DrawingList />}
      <Section title="Scale card">
        <Typography variant="body2" color="textSecondary">
          Printed once and laid beside a drawing, it gives a photograph its true size, straight and square, without a click:{' '}
          <Link href="/api/scale-card/a4" target="_blank">
            A4
          </Link>{' '}
          or{' '}
          <Link href="/api/scale-card/letter" target="_blank">
            Letter
          </Link>
          .
        </Typography>
      </Section>
    </Docket>
  );
}

function Hint({ tool }: { tool: Tool }) {
  const prompts: Partial<Record<Tool, string>> = {
    'crop-box': 'Click one corner of the box, then the opposite one.',
    'crop-outline': 'Click round what you want to keep; click the last place again, or press Enter, to close it.',
    'move-picture': 'Drag the picture where it shall lie.',
  };
  return prompts[tool] ? <Typography role="status">{prompts[tool]}</Typography> : null;
}
