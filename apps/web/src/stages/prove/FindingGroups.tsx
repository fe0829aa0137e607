'use client';
/**
 * The findings, those of one kind together: each with a small picture of its place, a click that goes there, and its buttons.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Piece } from '@nuvet/core/job';
import { type Point, pathBox, polygonOf } from '@nuvet/core/plane';
import { type Finding, findingKinds, fixCommand } from '@nuvet/core/proof';
import { nanoid } from 'nanoid';
import { memo, useState } from 'react';
import { useProcesses } from '@/processes/open-process';
import { setMaking, useMaking } from '@/table/making-store';
import { showPlaces } from '@/table/show-places';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { told } from '@/words/told';
import { useJob } from '../../job/job-store';
import { type StageName, stageWords } from '../stage';

/** Of a kind more than this are shown on request. */
const maxShown = 4;

export function FindingGroups({
  findings,
  pieces,
  onStage,
}: {
  findings: readonly Finding[];
  pieces: readonly Piece[];
  onStage: (stage: StageName) => void;
}) {
  const codes = [...new Set(findings.map((f) => f.code))];
  return (
    <Box sx={{ display: 'grid', gap: 1.5, mt: 1 }}>
      {codes.map((code) => (
        <Group
          key={code}
          title={findingKinds[code].heading}
          findings={findings.filter((f) => f.code === code)}
          pieces={pieces}
          onStage={onStage}
        />
      ))}
    </Box>
  );
}

function Group({
  title,
  findings,
  pieces,
  onStage,
}: {
  title: string;
  findings: readonly Finding[];
  pieces: readonly Piece[];
  onStage: (stage: StageName) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const shown = isOpen ? findings : findings.slice(0, maxShown);
  const stops = findings.some((f) => f.weight === 'stops');
  return (
    <Box component="section" aria-label={title} sx={{ borderLeft: `3px solid ${stops ? colours.madder : colours.brass}`, pl: 1.25 }}>
      <Typography component="h3" sx={{ fontSize: 13, fontWeight: 650, color: stops ? colours.madder : colours.brass }}>
        {title}
        {findings.length > 1 ? ` · ${findings.length}` : ''}
      </Typography>
      {shown.map((finding) => (
        <FindingRow key={finding.key} finding={finding} pieces={pieces} onStage={onStage} />
      ))}
      {findings.length > shown.length && (
        <Button size="small" onClick={() => setOpen(true)}>
          {words.prove.showMore(findings.length - shown.length)}
        </Button>
      )}
    </Box>
  );
}

function FindingRow({ finding, pieces, onStage }: { finding: Finding; pieces: readonly Piece[]; onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const isLit = useMaking((s) => s.places === finding.places);
  const stage = findingKinds[finding.code].stage;
  const go = () => showPlaces(finding.places);
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: finding.places.length > 0 ? '52px 1fr' : '1fr', gap: 1.25, py: 0.75 }}>
      {finding.places.length > 0 && (
        <Box
          component="button"
          aria-label={words.prove.goTo(told(finding.said, job.unit))}
          onClick={go}
          sx={{
            p: 0,
            width: 52,
            height: 52,
            cursor: 'zoom-in',
            bgcolor: colours.sheet,
            borderRadius: 1,
            border: `1.5px solid ${isLit ? colours.madder : colours.line}`,
          }}
        >
          <PlaceThumbnail place={finding.places[0] as Point} ids={finding.pieceIds} pieces={pieces} />
        </Box>
      )}
      <Box sx={{ minWidth: 0 }}>
        <Typography variant="body2">{told(finding.said, job.unit)}</Typography>
        <ForProcesses ids={finding.processIds} />
        <Box sx={{ display: 'flex', flexWrap: 'wrap', ml: -0.75 }}>
          {stage && (
            <Button size="small" onClick={() => onStage(stage)}>
              {stageWords[stage]}
            </Button>
          )}
          {finding.fixes.map((fix) => (
            <Button
              key={fix.word}
              size="small"
              color={fix.do === 'accept' ? 'inherit' : 'primary'}
              onClick={() => {
                run(fixCommand(job, finding, fix, () => nanoid(10)));
                setMaking({ places: [] });
              }}
            >
              {words.messages.fixes[fix.word]}
            </Button>
          ))}
        </Box>
      </Box>
    </Box>
  );
}

/** Of a finding that only some of the job's processes have, which. */
function ForProcesses({ ids }: { ids: readonly string[] | undefined }) {
  const processes = useProcesses();
  if (!ids) return null;
  const names = processes.filter(({ entry }) => ids.includes(entry.id)).map(({ kind }) => kind.word);
  return (
    <Typography variant="caption" color="textSecondary">
      {words.prove.onlyFor(names.join(', '))}
    </Typography>
  );
}

const side = 49;
/** The thumbnail shows so much of the sheet round its place, mm, or less of small pieces. */
const widestMm = 24;

const PlaceThumbnail = memo(function PlaceThumbnail({
  place,
  ids,
  pieces,
}: {
  place: Point;
  ids: readonly string[];
  pieces: readonly Piece[];
}) {
  const own = pieces.filter((p) => ids.includes(p.id));
  const sizes = own.map((p) => pathBox(p.outer)).map((b) => Math.max(b.maxX - b.minX, b.maxY - b.minY));
  const span = Math.max(2, Math.min(widestMm, 1.3 * Math.max(...sizes, 0)));
  const scale = side / span;
  const at = ({ x, y }: Point) => `${((x - place.x + span / 2) * scale).toFixed(1)} ${((place.y - y + span / 2) * scale).toFixed(1)}`;
  return (
    <svg width={side} height={side} viewBox={`0 0 ${side} ${side}`} aria-hidden="true">
      {own.map((piece) => (
        <path
          key={piece.id}
          d={[piece.outer, ...piece.holes]
            .map(
              (path) =>
                `M${polygonOf(path, 0.4 / scale)
                  .map(at)
                  .join('L')}${path.closed ? 'Z' : ''}`,
            )
            .join('')}
          fill={piece.outer.closed ? 'rgba(30, 123, 107, 0.16)' : 'none'}
          fillRule="evenodd"
          stroke={colours.verdigris}
          strokeWidth={1.2}
        />
      ))}
      <circle cx={side / 2} cy={side / 2} r={7} fill="none" stroke={colours.madder} strokeWidth={1.8} />
    </svg>
  );
});
