'use client';
import AddPhotoAlternateOutlined from '@mui/icons-material/AddPhotoAlternateOutlined';
import FileDownloadOutlined from '@mui/icons-material/FileDownloadOutlined';
import Alert from '@mui/material/Alert';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { fitOf, type Picture } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { setTable, useTable } from '@/table/table-store';
import type { PictureDropState } from '@/ui/PictureDrop';
import { Docket, Reading, Section, ToolCard } from '../Docket';
import { useJob } from '../job-store';
import type { StageName } from '../stage';

const sources = { png: 'the PNG file', jfif: 'the JPEG file', exif: 'the camera’s data' } as const;

export function BringIn({
  picture,
  drop,
  onStage,
}: {
  picture: Picture | null;
  drop: PictureDropState;
  onStage: (stage: StageName) => void;
}) {
  return (
    <Docket
      tray={
        <>
          <ToolCard
            icon={<AddPhotoAlternateOutlined />}
            word={picture ? 'Another picture' : 'Picture'}
            explanation="Choose a PNG or JPEG, up to 100 megapixels"
            disabled={drop.busy}
            onClick={drop.choose}
          />
          {picture && (
            <ToolCard
              icon={<FileDownloadOutlined />}
              word="The original"
              explanation="Get the file back, byte for byte as it came"
              onClick={() => window.open(`/api/pictures/${picture.id}`, '_blank')}
            />
          )}
        </>
      }
      next={
        picture
          ? { word: 'Next: true up', onClick: () => onStage('true-up') }
          : { word: 'Choose a picture', onClick: drop.choose, disabled: drop.busy }
      }
    >
      {drop.news}
      {picture ? (
        <AboutPicture picture={picture} />
      ) : (
        <Typography>Drop a scan or photo on the table: PNG or JPEG, up to 100 megapixels.</Typography>
      )}
    </Docket>
  );
}

function AboutPicture({ picture }: { picture: Picture }) {
  const { run, job } = { run: useJob((s) => s.run), job: useJob((s) => s.job) };
  const moving = useTable((s) => s.opacity);
  const { resolution } = picture;
  const fromFile = resolution ? fitOf({ ...picture, marks: [] }) : null;
  return (
    <>
      <Section title={picture.name}>
        <Reading name="Pixels">
          {picture.widthPx} x {picture.heightPx}
        </Reading>
        <Reading name="Megapixels">{((picture.widthPx * picture.heightPx) / 1e6).toFixed(1)}</Reading>
        <Reading name="Resolution">{resolution ? `${Number(resolution.dpi.toFixed(2))} dpi` : 'not stated'}</Reading>
      </Section>
      {resolution && fromFile ? (
        <Section title="First true size">
          <Typography variant="body2" color="textSecondary" sx={{ mb: 0.5 }}>
            By the resolution in {sources[resolution.source]}, the whole picture is
          </Typography>
          <Reading name="Wide">{printBoth(fromFile.sheetWidthMm, job.unit)}</Reading>
          <Reading name="High">{printBoth(fromFile.sheetHeightMm, job.unit)}</Reading>
        </Section>
      ) : (
        <Alert severity="warning" variant="outlined">
          The file does not say how large the picture is. Mark a length that you know, under True up.
        </Alert>
      )}
      <Section title="Opacity on the table">
        <Slider
          aria-label="Opacity of the picture"
          min={0}
          max={100}
          value={Math.round((moving ?? picture.opacity) * 100)}
          onChange={(_, value) => setTable({ opacity: (value as number) / 100 })}
          onChangeCommitted={(_, value) => {
            run({ do: 'set-opacity', pictureId: picture.id, opacity: (value as number) / 100 });
            setTable({ opacity: null });
          }}
          valueLabelDisplay="auto"
          valueLabelFormat={(value) => `${value} %`}
        />
      </Section>
    </>
  );
}
