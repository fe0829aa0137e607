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
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { Docket, ToolCard } from '../Docket';
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
            word={words.bringIn.picture}
            explanation={words.bringIn.pictureExplanation}
            disabled={incoming.busy}
            onClick={incoming.choose}
          />
          <ToolCard
            icon={<PhotoCameraOutlined />}
            word={words.bringIn.camera}
            explanation={words.bringIn.cameraExplanation}
            disabled={incoming.busy}
            onClick={incoming.photograph}
          />
          <ToolCard
            icon={<ContentPasteOutlined />}
            word={words.bringIn.paste}
            explanation={words.bringIn.pasteExplanation}
            disabled={incoming.busy}
            onClick={incoming.paste}
          />
          <ToolCard
            icon={<DocumentScannerOutlined />}
            word={words.bringIn.scanner}
            explanation={scannerService ? words.bringIn.scanFromAFlatbedScanner : words.bringIn.noScannerServiceIsSetUp}
            isInHand={isScanning}
            disabled={!scannerService || incoming.busy}
            onClick={() => setScanning(!isScanning)}
          />
          {picture && (
            <>
              <ToolCard
                icon={<CropOutlined />}
                word={words.bringIn.cropToABox}
                explanation={words.bringIn.cropBoxExplanation}
                isInHand={tool === 'crop-box'}
                onClick={() => take('crop-box')}
              />
              <ToolCard
                icon={<PolylineOutlined />}
                word={words.bringIn.cropByOutline}
                explanation={words.bringIn.cropOutlineExplanation}
                isInHand={tool === 'crop-outline'}
                onClick={() => take('crop-outline')}
              />
              <ToolCard
                icon={<OpenWithOutlined />}
                word={words.bringIn.move}
                explanation={words.bringIn.moveExplanation}
                isInHand={tool === 'move-picture'}
                disabled={picture.locked}
                onClick={() => take('move-picture')}
              />
            </>
          )}
          <ToolCard
            icon={<PrintOutlined />}
            word={words.bringIn.scaleCard}
            explanation={words.bringIn.scaleCardExplanation}
            onClick={() => window.open('/api/scale-card/a4', '_blank')}
          />
        </>
      }
      next={
        isEmpty
          ? { word: words.bringIn.chooseAPicture, onClick: incoming.choose, disabled: incoming.busy }
          : picture
            ? { word: words.bringIn.nextTrueUp, onClick: () => onStage('true-up') }
            : { word: words.bringIn.nextProve, onClick: () => onStage('prove') }
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
      {isEmpty && <Typography>{words.bringIn.dropExplanation}</Typography>}
      {job.pictures.length > 0 && <PictureList pictures={job.pictures} active={picture} />}
      {picture && <PictureCard picture={picture} />}
      {job.drawings.length > 0 && <DrawingList />}
      <Section title={words.bringIn.scaleCard}>
        <Typography variant="body2" color="textSecondary">
          {words.bringIn.scaleCardNote}{' '}
          <Link href="/api/scale-card/a4" target="_blank">
            {words.bringIn.a4}
          </Link>{' '}
          {words.bringIn.or}{' '}
          <Link href="/api/scale-card/letter" target="_blank">
            {words.bringIn.letter}
          </Link>
          .
        </Typography>
      </Section>
    </Docket>
  );
}

function Hint({ tool }: { tool: Tool }) {
  const prompts: Partial<Record<Tool, string>> = {
    'crop-box': words.bringIn.cropBoxPrompt,
    'crop-outline': words.bringIn.cropOutlinePrompt,
    'move-picture': words.bringIn.movePrompt,
  };
  return prompts[tool] ? <Typography role="status">{prompts[tool]}</Typography> : null;
}
