'use client';
/**
 * All jobs of the workshop; a picture dropped anywhere starts a new one.
 */
import AddPhotoAlternateOutlined from '@mui/icons-material/AddPhotoAlternateOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { z } from 'zod';
import type { JobSummary } from '@/server/jobs';
import { colours } from '@/ui/colours';
import { ask } from '@/ui/requests';
import { Incoming } from './bring-in/Incoming';
import { waysOfMaking } from './ways';

const madeSchema = z.object({ id: z.uuid() });

/** A job is called after its picture until it is given a name. */
const nameFrom = (file: string): string =>
  file
    .replace(/\.[a-z]+$/i, '')
    .replace(/[-_]+/g, ' ')
    .trim()
    .slice(0, 120) || 'New job';

export function JobList({ jobs }: { jobs: JobSummary[] }) {
  const router = useRouter();
  const [leaving, setLeaving] = useState<JobSummary | null>(null);
  return (
    <Box sx={{ height: '100vh' }}>
      <Incoming
        invitation="Drop to start a new job"
        onBrought={async ({ pictures, drawings }) => {
          const name = nameFrom((pictures[0] ?? drawings[0])?.name ?? '');
          const { id } = await ask('POST', '/api/jobs', madeSchema, { name, pictureIds: pictures.map((p) => p.id) });
          if (drawings.length > 0) {
            const steps = drawings.map((drawing) => ({ step: 'do', command: { do: 'bring-in-drawing', drawing } }));
            await ask('POST', `/api/jobs/${id}/edits`, z.unknown(), { base: 1, steps, wanted: false });
          }
          router.push(`/jobs/${id}?stage=${pictures.length > 0 ? 'true-up' : 'bring-in'}`);
        }}
      >
        {({ choose, busy, news }) => (
          <Box sx={{ height: '100vh', overflowY: 'auto' }}>
            <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: 4, py: 4, display: 'grid', gap: 3 }}>
              <Box sx={{ display: 'flex', alignItems: 'end', gap: 3 }}>
                <Box sx={{ flex: 1 }}>
                  <Typography variant="h1" sx={{ color: colours.verdigris }}>
                    Nuvet
                  </Typography>
                  <Typography color="textSecondary">
                    From a scan or photo to outlines that are closed, straight and the right size.
                  </Typography>
                </Box>
                <Button variant="contained" size="large" startIcon={<AddPhotoAlternateOutlined />} onClick={choose} disabled={busy}>
                  New job from a picture
                </Button>
              </Box>
              {news}
              <Typography variant="h2" sx={{ mt: 1 }}>
                {jobs.length > 0 ? 'Jobs on the bench' : 'No jobs yet'}
              </Typography>
              <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(255px, 1fr))', gap: 2.5 }}>
                {jobs.map((job) => (
                  <JobCard key={job.id} job={job} onDelete={() => setLeaving(job)} />
                ))}
                <Box
                  component="button"
                  onClick={choose}
                  sx={{
                    minHeight: 290,
                    border: `2px dashed ${colours.line}`,
                    borderRadius: 2,
                    bgcolor: 'transparent',
                    color: 'text.secondary',
                    font: 'inherit',
                    cursor: 'pointer',
                    display: 'grid',
                    placeContent: 'center',
                    gap: 1,
                    px: 3,
                    '&:hover, &:focus-visible': { borderColor: colours.verdigris, color: colours.verdigris },
                  }}
                >
                  <AddPhotoAlternateOutlined sx={{ fontSize: 40, mx: 'auto' }} />
                  <Typography>Drop a picture, PDF, SVG or DXF anywhere on this page, or click here to choose one.</Typography>
                </Box>
              </Box>
            </Box>
          </Box>
        )}
      </Incoming>
      <DeleteJob
        job={leaving}
        onDone={(deleted) => {
          setLeaving(null);
          if (deleted) router.refresh();
        }}
      />
    </Box>
  );
}

function piecesInWords({ pieces, pictureId }: JobSummary): string {
  if (pieces === 0) return pictureId ? 'not traced yet' : 'no pieces yet';
  return pieces === 1 ? '1 piece' : `${pieces} pieces`;
}

function JobCard({ job, onDelete }: { job: JobSummary; onDelete: () => void }) {
  const way = waysOfMaking[job.making.way];
  return (
    <Box
      sx={{
        position: 'relative',
        bgcolor: 'background.paper',
        border: `1px solid ${colours.line}`,
        borderRadius: 2,
        overflow: 'hidden',
        '&:hover': { borderColor: colours.verdigris },
      }}
    >
      <Link href={`/jobs/${job.id}`} style={{ color: 'inherit', textDecoration: 'none', display: 'block' }}>
        <Box sx={{ height: 200, bgcolor: '#EFEAE0', display: 'grid', placeItems: 'center', position: 'relative' }}>
          {job.pictureId || job.hasOutlines ? (
            // The smallest tile of the picture, made when it was brought in; of what was drawn, a drawing.
            <Box
              component="img"
              src={job.pictureId ? `/api/pictures/${job.pictureId}/thumbnail` : `/api/jobs/${job.id}/drawing`}
              alt=""
              sx={{ position: 'absolute', inset: 0, width: '100%', height: '100%', objectFit: 'contain', p: 1 }}
            />
          ) : (
            <Typography color="textSecondary">Nothing on it yet</Typography>
          )}
        </Box>
        <Box sx={{ px: 2, py: 1.5, pr: 6 }}>
          <Typography variant="h3" noWrap>
            {job.name}
          </Typography>
          <Typography variant="body2" color="textSecondary" noWrap>
            {[way, job.making.stock].filter(Boolean).join(', ')}
          </Typography>
          <Typography variant="caption" color="textSecondary" component="div">
            {piecesInWords(job)} · {dayjs(job.updatedAt).format('D MMM YYYY, HH:mm')}
          </Typography>
        </Box>
      </Link>
      <Tooltip title="Delete this job">
        <IconButton aria-label={`Delete ${job.name}`} onClick={onDelete} sx={{ position: 'absolute', right: 6, bottom: 10 }}>
          <DeleteOutlined fontSize="small" />
        </IconButton>
      </Tooltip>
    </Box>
  );
}

function DeleteJob({ job, onDone }: { job: JobSummary | null; onDone: (deleted: boolean) => void }) {
  return (
    <Dialog open={job !== null} onClose={() => onDone(false)}>
      <DialogTitle>Delete “{job?.name}”?</DialogTitle>
      <DialogContent>The job, its picture and its outlines will be gone for good. This cannot be undone.</DialogContent>
      <DialogActions>
        <Button onClick={() => onDone(false)}>Keep it</Button>
        <Button
          color="error"
          variant="contained"
          onClick={() => job && ask('DELETE', `/api/jobs/${job.id}`, z.null()).then(() => onDone(true))}
        >
          Delete
        </Button>
      </DialogActions>
    </Dialog>
  );
}
