'use client';
/**
 * The pictures of a job in their order: which is worked on, which are shown, which are locked.
 */
import ArrowDownwardOutlined from '@mui/icons-material/ArrowDownwardOutlined';
import ArrowUpwardOutlined from '@mui/icons-material/ArrowUpwardOutlined';
import LockOpenOutlined from '@mui/icons-material/LockOpenOutlined';
import LockOutlined from '@mui/icons-material/LockOutlined';
import VisibilityOffOutlined from '@mui/icons-material/VisibilityOffOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import { fitOf, type Picture } from '@nuvet/core/job';
import { setTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

/** Room between pictures laid side by side, mm. */
const gapMm = 10;

export function PictureList({ pictures, active }: { pictures: readonly Picture[]; active: Picture | null }) {
  const run = useJob((s) => s.run);
  const change = (picture: Picture, what: Partial<Picture>) => run({ do: 'change-picture', pictureId: picture.id, change: what });
  const datumOnDatum = () => {
    for (const picture of pictures) change(picture, { place: { x: 0, y: 0 } });
  };
  /** Each to the right of the one before, their datums on one level. */
  const sideBySide = () => {
    let right = 0;
    for (const picture of pictures) {
      const { sheetBox } = fitOf(picture);
      const left = sheetBox.minX - picture.place.x;
      change(picture, { place: { x: right - left, y: 0 } });
      right += sheetBox.maxX - sheetBox.minX + gapMm;
    }
  };
  return (
    <Section title={pictures.length === 1 ? words.bringIn.picture : words.bringIn.pictures(pictures.length)}>
      {pictures.map((picture, k) => (
        <Box
          key={picture.id}
          data-picture={picture.name}
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 0.25,
            mx: -1,
            pl: 1,
            borderRadius: 1,
            bgcolor: picture.id === active?.id ? 'rgba(30, 123, 107, 0.1)' : undefined,
          }}
        >
          <Box
            component="button"
            aria-pressed={picture.id === active?.id}
            onClick={() => setTable({ activeId: picture.id, selected: null })}
            sx={{
              flex: 1,
              minWidth: 0,
              py: 0.75,
              font: 'inherit',
              fontSize: 13.5,
              fontWeight: picture.id === active?.id ? 600 : 400,
              textAlign: 'left',
              border: 0,
              bgcolor: 'transparent',
              cursor: 'pointer',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
              whiteSpace: 'nowrap',
              color: picture.hidden ? 'text.secondary' : 'text.primary',
            }}
          >
            {picture.name}
          </Box>
          {pictures.length > 1 && (
            <>
              <Small
                word={words.bringIn.lower(picture.name)}
                isOff={k === 0}
                onClick={() => run({ do: 'order-picture', pictureId: picture.id, to: k - 1 })}
              >
                <ArrowUpwardOutlined fontSize="inherit" />
              </Small>
              <Small
                word={words.bringIn.higher(picture.name)}
                isOff={k === pictures.length - 1}
                onClick={() => run({ do: 'order-picture', pictureId: picture.id, to: k + 1 })}
              >
                <ArrowDownwardOutlined fontSize="inherit" />
              </Small>
            </>
          )}
          <Small
            word={`${picture.locked ? words.bringIn.unlock : words.bringIn.lock}: ${picture.name}`}
            onClick={() => change(picture, { locked: !picture.locked })}
          >
            {picture.locked ? <LockOutlined fontSize="inherit" /> : <LockOpenOutlined fontSize="inherit" />}
          </Small>
          <Small
            word={`${picture.hidden ? words.bringIn.show : words.bringIn.hide}: ${picture.name} (H)`}
            onClick={() => change(picture, { hidden: !picture.hidden })}
          >
            {picture.hidden ? <VisibilityOffOutlined fontSize="inherit" /> : <VisibilityOutlined fontSize="inherit" />}
          </Small>
        </Box>
      ))}
      {pictures.length > 1 && (
        <Box sx={{ display: 'flex', gap: 0.75, mt: 1, borderTop: `1px solid ${colours.line}`, pt: 1 }}>
          <Button size="small" variant="outlined" onClick={sideBySide}>
            {words.bringIn.sideBySide}
          </Button>
          <Button size="small" variant="outlined" onClick={datumOnDatum}>
            {words.bringIn.datumOnDatum}
          </Button>
        </Box>
      )}
    </Section>
  );
}

function Small({
  word,
  isOff = false,
  onClick,
  children,
}: {
  word: string;
  isOff?: boolean;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <Tooltip title={word}>
      <span>
        <IconButton size="small" aria-label={word} disabled={isOff} onClick={onClick} sx={{ fontSize: 18, p: 0.5 }}>
          {children}
        </IconButton>
      </span>
    </Tooltip>
  );
}
