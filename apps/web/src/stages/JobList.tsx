'use client';
/**
 * All jobs of the workshop, a page at a time; a picture dropped anywhere starts a new one. Jobs are renamed, copied and put in the
 * bin here, and taken out of it.
 */
import AddPhotoAlternateOutlined from '@mui/icons-material/AddPhotoAlternateOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Inventory2Outlined from '@mui/icons-material/Inventory2Outlined';
import MoreVert from '@mui/icons-material/MoreVert';
import RestoreFromTrashOutlined from '@mui/icons-material/RestoreFromTrashOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Pagination from '@mui/material/Pagination';
import Snackbar from '@mui/material/Snackbar';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { processKinds } from '@nuvet/core/processes';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useRef, useState, useSyncExternalStore } from 'react';
import { z } from 'zod';
import type { JobPageOfList, JobSummary, Listing } from '@/server/jobs';
import { colours } from '@/ui/colours';
import { ask } from '@/ui/requests';
import { words } from '@/words';
import { Incoming } from './bring-in/Incoming';
import { EmptySheet } from './EmptySheet';

const madeSchema = z.object({ id: z.uuid() });

/** A job is called after its picture until it is given a name. */
const nameFrom = (file: string): string =>
  Array.from(
    file
      .replace(/\.[a-z]+$/i, '')
      .replace(/[-_]+/g, ' ')
      .trim(),
  )
    .slice(0, 60)
    .join('') || words.job.newJob;

const jobsOnPage = 50;

/** What can be said of a job that was put away, with the way back. */
interface Putaway {
  readonly id: string;
  readonly name: string;
}

interface Props extends JobPageOfList {
  readonly listing: Listing;
}

/** The address of a page of the list. */
function addressOf({ page, search, inBin }: Listing): string {
  const query = new URLSearchParams({
    ...(search ? { search } : {}),
    ...(page > 0 ? { page: String(page) } : {}),
    ...(inBin ? { bin: '' } : {}),
  });
  return query.size > 0 ? `/?${query}` : '/';
}

export function JobList({ jobs, count, listing }: Props) {
  const router = useRouter();
  const [putAway, setPutAway] = useState<Putaway | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const { search, page, inBin } = listing;
  /** Does something to a job, and shows the list as it is then; what went wrong stands over the list. */
  const act = async (work: () => Promise<unknown>): Promise<boolean> => {
    try {
      await work();
      setMessage(null);
      router.refresh();
      return true;
    } catch (error) {
      setMessage((error as Error).message);
      return false;
    }
  };
  const actions: JobActions = {
    rename: (job, name) =>
      act(() =>
        ask('POST', `/api/jobs/${job.id}/edits`, z.unknown(), {
          base: job.revision,
          steps: [{ step: 'do', command: { do: 'rename', name } }],
        }),
      ),
    duplicate: (job) => act(() => ask('POST', '/api/jobs', madeSchema, { name: words.job.copyOf(job.name.slice(0, 110)), copyOf: job.id })),
    bin: async (job) => {
      if (await act(() => ask('DELETE', `/api/jobs/${job.id}`, z.null()))) setPutAway({ id: job.id, name: job.name });
    },
    restore: async ({ id }) => {
      setPutAway(null);
      await act(() => ask('POST', `/api/jobs/${id}/restore`, z.null(), {}));
    },
  };
  const pages = Math.ceil(count / jobsOnPage);
  return (
    <Box sx={{ height: '100vh' }}>
      <Incoming
        invitation="Drop to start a new job"
        onBrought={async ({ pictures, drawings }) => {
          const name = nameFrom((pictures[0] ?? drawings[0])?.name ?? '');
          const { id } = await ask('POST', '/api/jobs', madeSchema, { name, pictureIds: pictures.map((p) => p.id) });
          if (drawings.length > 0) {
            const steps = drawings.map((drawing) => ({ step: 'do', command: { do: 'bring-in-drawing', drawing } }));
            const base = pictures.length > 0 ? 2 : 1;
            await ask('POST', `/api/jobs/${id}/edits`, z.unknown(), { base, steps, wanted: false });
          }
          router.push(`/jobs/${id}?stage=${pictures.length > 0 ? 'true-up' : 'bring-in'}`);
        }}
      >
        {({ choose, busy, news }) => (
          <Box sx={{ height: '100vh', overflowY: 'auto' }}>
            <Box component="main" sx={{ maxWidth: 1180, mx: 'auto', px: { xs: 2, md: 4 }, py: 4, display: 'grid', gap: 3 }}>
              <Box sx={{ display: 'flex', alignItems: 'end', gap: 2, flexWrap: 'wrap' }}>
                <Box sx={{ flex: '1 1 320px' }}>
                  <Typography variant="h1" sx={{ color: colours.verdigris }}>
                    {words.job.nuvet}
                  </Typography>
                  <Typography color="textSecondary">{words.job.tagline}</Typography>
                </Box>
                <EmptySheet onMade={(id) => router.push(`/jobs/${id}?stage=trace`)} onFault={setMessage} />
                <Button variant="contained" size="large" startIcon={<AddPhotoAlternateOutlined />} onClick={choose} disabled={busy}>
                  {words.job.newJobFromAPicture}
                </Button>
              </Box>
              {news}
              {message && (
                <Alert severity="error" onClose={() => setMessage(null)}>
                  {message}
                </Alert>
              )}
              <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mt: 1, flexWrap: 'wrap' }}>
                <Typography variant="h2" sx={{ flex: 1 }}>
                  {titleOf(listing, count)}
                </Typography>
                <Search key={search} listing={listing} />
                <Button component={Link} href="/shelf" startIcon={<Inventory2Outlined />}>
                  {words.job.shelf}
                </Button>
                <Button
                  component={Link}
                  href={addressOf({ page: 0, search: '', inBin: !inBin })}
                  startIcon={inBin ? undefined : <DeleteOutlined />}
                >
                  {inBin ? words.job.backToTheJobs : words.job.bin}
                </Button>
              </Box>
              {inBin && <Typography color="textSecondary">{words.job.binExplanation}</Typography>}
              <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(255px, 1fr))', gap: 2.5 }}>
                {jobs.map((job) => (
                  <JobCard key={job.id} job={job} inBin={inBin} actions={actions} />
                ))}
                {!inBin && search === '' && (
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
                    <Typography>{words.job.dropAnywhere}</Typography>
                  </Box>
                )}
              </Box>
              {pages > 1 && (
                <Pagination
                  count={pages}
                  page={page + 1}
                  onChange={(_, next) => router.push(addressOf({ ...listing, page: next - 1 }))}
                  sx={{ justifySelf: 'center' }}
                />
              )}
            </Box>
          </Box>
        )}
      </Incoming>
      <Snackbar
        open={putAway !== null}
        autoHideDuration={12_000}
        onClose={(_, reason) => reason === 'timeout' && setPutAway(null)}
        message={words.job.isInTheBin(putAway?.name)}
        action={
          <Button color="inherit" size="small" onClick={() => putAway && void actions.restore(putAway)}>
            {words.job.undo}
          </Button>
        }
      />
    </Box>
  );
}

function titleOf({ search, inBin }: Listing, count: number): string {
  if (search) return words.job.matching(count, search);
  if (inBin) return count > 0 ? words.job.inTheBin(count) : words.job.theBinIsEmpty;
  return count > 0 ? words.job.onTheBench(count) : words.job.noJobsYet;
}

function Search({ listing }: { listing: Listing }) {
  const router = useRouter();
  const [typed, setTyped] = useState(listing.search);
  return (
    <TextField
      size="small"
      type="search"
      label={words.job.searchJobs}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onKeyDown={(event) => event.key === 'Enter' && router.push(addressOf({ ...listing, page: 0, search: typed.trim().slice(0, 120) }))}
    />
  );
}

interface JobActions {
  rename(job: JobSummary, name: string): Promise<boolean>;
  duplicate(job: JobSummary): Promise<boolean>;
  bin(job: JobSummary): Promise<void>;
  restore(job: Putaway): Promise<void>;
}

function piecesInWords({ pieces, pictureId }: JobSummary): string {
  if (pieces === 0) return pictureId ? words.job.notTracedYet : words.job.noPiecesYet;
  return pieces === 1 ? words.job.onePiece : words.job.pieces(pieces);
}

const dates = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});

const never = () => () => {};

/** When something was, in the time of the reader: only the browser knows that. */
function When({ at }: { at: string }) {
  const isInBrowser = useSyncExternalStore(never, () => true, () => false); // biome-ignore format: one line
  return <time dateTime={at}>{isInBrowser ? dates.format(new Date(at)) : ''}</time>;
}

function JobCard({ job, inBin, actions }: { job: JobSummary; inBin: boolean; actions: JobActions }) {
  const [isNaming, setIsNaming] = useState(false);
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
              loading="lazy"
              src={job.pictureId ? `/api/pictures/${job.pictureId}/thumbnail` : `/api/jobs/${job.id}/drawing?revision=${job.revision}`}
              alt=""
              sx={{ position: 'absolute', inset: 0, width: '100%', height: '100%', objectFit: 'contain', p: 1 }}
            />
          ) : (
            <Typography color="textSecondary">{words.job.nothingOnItYet}</Typography>
          )}
        </Box>
        <Box sx={{ px: 2, py: 1.5, pr: 6 }}>
          <Typography variant="h3" noWrap sx={{ visibility: isNaming ? 'hidden' : undefined }}>
            {job.name}
          </Typography>
          <Typography variant="body2" color="textSecondary" noWrap>
            {[job.processes.map((name) => processKinds[name]?.word ?? name).join(' + '), job.stock].filter(Boolean).join(', ')}
          </Typography>
          <Typography variant="caption" color="textSecondary" component="div" noWrap>
            {piecesInWords(job)} · <When at={job.updatedAt} />
          </Typography>
        </Box>
      </Link>
      {isNaming && (
        <NameField
          job={job}
          onNamed={(name) => {
            setIsNaming(false);
            if (name && name !== job.name) void actions.rename(job, name);
          }}
        />
      )}
      {inBin ? (
        <IconButton aria-label={words.job.takeOutOfTheBin(job.name)} onClick={() => void actions.restore(job)} sx={menuPlace}>
          <RestoreFromTrashOutlined fontSize="small" />
        </IconButton>
      ) : (
        <CardMenu job={job} actions={actions} onName={() => setIsNaming(true)} />
      )}
    </Box>
  );
}

const menuPlace = { position: 'absolute', right: 6, bottom: 10, width: 40, height: 40 } as const;

/** The name as a field in its own place. */
function NameField({ job, onNamed }: { job: JobSummary; onNamed: (name: string) => void }) {
  const [typed, setTyped] = useState(job.name);
  return (
    <InputBase
      autoFocus
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => onNamed(typed.trim())}
      onFocus={(event) => event.target.select()}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onNamed(typed.trim());
        if (event.key === 'Escape') onNamed('');
      }}
      inputProps={{ 'aria-label': words.job.newNameOf(job.name), maxLength: 120 }}
      sx={{
        position: 'absolute',
        left: 12,
        right: 50,
        top: 206,
        px: 0.5,
        bgcolor: 'background.paper',
        border: `1px solid ${colours.verdigris}`,
        borderRadius: 1,
        fontSize: 17,
        fontWeight: 650,
      }}
    />
  );
}

function CardMenu({ job, actions, onName }: { job: JobSummary; actions: JobActions; onName: () => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  // Done once the menu has gone: it gives the focus back to its button on the way.
  const chosen = useRef<(() => void) | null>(null);
  const choose = (work: () => void) => () => {
    chosen.current = work;
    setAnchor(null);
  };
  const onExited = () => {
    chosen.current?.();
    chosen.current = null;
  };
  return (
    <>
      <IconButton
        aria-label={`More for ${job.name}`}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={menuPlace}
      >
        <MoreVert fontSize="small" />
      </IconButton>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={() => setAnchor(null)} slotProps={{ transition: { onExited } }}>
        <MenuItem onClick={choose(onName)}>{words.job.rename}</MenuItem>
        <MenuItem onClick={choose(() => void actions.duplicate(job))}>{words.job.duplicate}</MenuItem>
        <MenuItem onClick={choose(() => void actions.bin(job))} sx={{ color: colours.madder }}>
          {words.job.moveToTheBin}
        </MenuItem>
      </Menu>
    </>
  );
}
