'use client';
/**
 * How wide and high all pieces are together; either can be typed anew, and the other follows.
 */
import Typography from '@mui/material/Typography';
import { printInches, printMm } from '@nuvet/core/length';
import { type Box, heightOf, widthOf } from '@nuvet/core/plane';
import { allScaled } from '@/table/overall-size';
import { Measure, Row } from '@/ui/Rows';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

export function OverallSize({ box, onMessage }: { box: Box; onMessage: (text: string) => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [width, height] = [widthOf(box), heightOf(box)];
  const print = job.unit === 'mm' ? printInches : printMm;
  const scale = (wanted: number, is: number) => {
    if (!(is > 0)) return;
    const command = allScaled(job, wanted / is, { x: box.minX, y: box.minY });
    if (command) run(command);
    else onMessage(words.prove.tooManyToScale);
  };
  return (
    <>
      <Row>
        <Measure label={words.prove.overallWidth} mm={width} unit={job.unit} onMm={(mm) => scale(mm, width)} />
        <Measure label={words.prove.overallHeight} mm={height} unit={job.unit} onMm={(mm) => scale(mm, height)} />
      </Row>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mt: 0.5 }}>
        {words.prove.sizeInOtherUnit(print(width), print(height))} {words.prove.overallSizeNote}
      </Typography>
    </>
  );
}
