'use client';
/** The fields of an operation: those that all have, and those of its kind. */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type MillingSettings, type Operation, type OperationOf, plainTabs } from '@nuvet/core/milling';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { words } from '@/words';
import { purposeHeadings } from '@/words/purposes';

const say = words.cnc;

interface Props<O extends Operation = Operation> {
  readonly operation: O;
  readonly settings: MillingSettings;
  readonly onChange: (next: Operation) => void;
}

/** Nothing is the same as less than this, mm. */
const leastMm = 1e-6;

export function OperationFields({ operation, settings, onChange }: Props) {
  const { kind } = operation;
  return (
    <>
      <Pick
        label={say.tool}
        value={settings.tools.some(({ id }) => id === operation.tool) ? operation.tool : ''}
        words={Object.fromEntries(settings.tools.map(({ id, name }) => [id, name]))}
        onPick={(tool) => onChange({ ...operation, tool })}
      />
      {kind !== 'face' && (
        <Pick
          label={say.purposeOfPieces}
          value={operation.of ?? ''}
          words={{ '': say.allPieces, ...purposeHeadings }}
          onPick={(of) => onChange({ ...operation, of: of === '' ? null : (of as Operation['of']), pieces: null })}
        />
      )}
      <DepthField operation={operation} onChange={onChange} />
      {kind === 'profile' && <ProfileFields operation={operation} settings={settings} onChange={onChange} />}
      {kind === 'pocket' && <PocketFields operation={operation} settings={settings} onChange={onChange} />}
      {(kind === 'carve' || kind === 'inlay') && <FloorField operation={operation} settings={settings} onChange={onChange} />}
      {kind === 'inlay' && <InlayFields operation={operation} settings={settings} onChange={onChange} />}
      {kind === 'holes' && <HoleFields operation={operation} settings={settings} onChange={onChange} />}
      {kind === 'face' && (
        <Pick
          label={say.pattern}
          value={operation.pattern}
          words={say.facePatterns}
          onPick={(pattern) => onChange({ ...operation, pattern })}
        />
      )}
      {(kind === 'profile' || kind === 'pocket' || kind === 'follow' || kind === 'holes') && (
        <EntryField operation={operation} onChange={onChange} />
      )}
    </>
  );
}

function DepthField({ operation, onChange }: Omit<Props, 'settings'>) {
  const unit = useJob((s) => s.job.unit);
  if (operation.kind === 'chamfer')
    return <Measure label={say.width} mm={operation.widthMm} unit={unit} onMm={(widthMm) => onChange({ ...operation, widthMm })} />;
  const { kind } = operation;
  if (kind === 'profile' || kind === 'holes' || kind === 'pocket')
    return (
      <Measure
        label={say.depth}
        mm={operation.depthMm}
        unit={unit}
        placeholder={kind === 'pocket' ? say.half : say.rightThrough}
        onMm={(depthMm) => onChange({ ...operation, depthMm })}
        onEmpty={() => onChange({ ...operation, depthMm: null })}
      />
    );
  return <Measure label={say.depth} mm={operation.depthMm} unit={unit} onMm={(depthMm) => onChange({ ...operation, depthMm })} />;
}

type WithEntry = OperationOf<'profile'> | OperationOf<'pocket'> | OperationOf<'follow'> | OperationOf<'holes'>;

function EntryField({ operation, onChange }: { operation: WithEntry; onChange: Props['onChange'] }) {
  return (
    <NumberField
      label={say.entryAngle}
      value={operation.entryAngle}
      digits={1}
      unit="°"
      least={1}
      most={90}
      onNumber={(n) => onChange({ ...operation, entryAngle: n })}
      onEmpty={() => onChange({ ...operation, entryAngle: null })}
    />
  );
}

function ProfileFields({ operation, onChange }: Props<OperationOf<'profile'>>) {
  const set = (change: Partial<typeof operation>): void => onChange({ ...operation, ...change });
  const unit = useJob((s) => s.job.unit);
  const { tabs, skinMm } = operation;
  const held = skinMm > leastMm ? 'skin' : tabs ? 'tabs' : 'nothing';
  return (
    <>
      <Row>
        <Pick label={say.side} value={operation.side} words={say.sides} onPick={(side) => set({ side })} />
        <Pick label={say.direction} value={operation.direction} words={say.directions} onPick={(direction) => set({ direction })} />
      </Row>
      <Row>
        <Measure label={say.finish} mm={operation.finishMm} unit={unit} range="from zero" onMm={(finishMm) => set({ finishMm })} />
        <Measure label={say.lead} mm={operation.leadMm} unit={unit} range="from zero" onMm={(leadMm) => set({ leadMm })} />
      </Row>
      <Row>
        <Pick
          label={say.holding}
          value={held}
          words={say.holdings}
          onPick={(next) => set({ tabs: next === 'tabs' ? (tabs ?? plainTabs) : null, skinMm: next === 'skin' ? 0.3 : 0 })}
        />
        <Pick
          label={say.corners}
          value={operation.corners}
          words={say.cornerWords}
          onPick={(corners) => set({ corners, cornersAt: null })}
        />
      </Row>
      {operation.corners !== 'as drawn' && (
        <Typography variant="caption" color="textSecondary">
          {say.cornersClicked}
        </Typography>
      )}
      {held === 'skin' && <Measure label={say.skin} mm={skinMm} unit={unit} onMm={(skinMm) => set({ skinMm })} />}
      {held === 'tabs' && tabs && (
        <>
          <Row>
            <NumberField
              label={say.tabs}
              value={tabs.count}
              digits={0}
              unit={say.aPiece}
              least={0}
              most={100}
              onNumber={(n) => set({ tabs: { ...tabs, places: null, count: Math.round(n) } })}
            />
            <Measure
              label={say.orEvery}
              mm={tabs.spacingMm || null}
              unit={unit}
              onMm={(spacingMm) => set({ tabs: { ...tabs, places: null, spacingMm } })}
              onEmpty={() => set({ tabs: { ...tabs, places: null, spacingMm: 0 } })}
            />
          </Row>
          <Row>
            <Measure label={say.tabWidth} mm={tabs.widthMm} unit={unit} onMm={(widthMm) => set({ tabs: { ...tabs, widthMm } })} />
            <Measure label={say.tabHeight} mm={tabs.heightMm} unit={unit} onMm={(heightMm) => set({ tabs: { ...tabs, heightMm } })} />
          </Row>
          <Typography variant="caption" color="textSecondary">
            {tabs.places ? say.tabsByHand : say.tabsDragged}
          </Typography>
          {tabs.places && (
            <Button size="small" variant="outlined" onClick={() => set({ tabs: { ...tabs, places: null } })}>
              {say.tabsEvenly}
            </Button>
          )}
          <Pick label={say.flanks} value={tabs.flanks} words={say.flankWords} onPick={(flanks) => set({ tabs: { ...tabs, flanks } })} />
        </>
      )}
    </>
  );
}

function PocketFields({ operation, settings, onChange }: Props<OperationOf<'pocket'>>) {
  const set = (change: Partial<typeof operation>): void => onChange({ ...operation, ...change });
  const unit = useJob((s) => s.job.unit);
  return (
    <>
      <Row>
        <Pick label={say.pattern} value={operation.pattern} words={say.patterns} onPick={(pattern) => set({ pattern })} />
        <Pick label={say.direction} value={operation.direction} words={say.directions} onPick={(direction) => set({ direction })} />
      </Row>
      {operation.pattern === 'lines' && (
        <NumberField
          label={say.lineAngle}
          value={operation.lineAngle}
          digits={1}
          unit="°"
          onNumber={(n) => Math.abs(n) <= 180 && set({ lineAngle: n })}
        />
      )}
      <Row>
        <Measure label={say.finish} mm={operation.finishMm} unit={unit} range="from zero" onMm={(finishMm) => set({ finishMm })} />
        <NumberField
          label={say.engagement}
          value={operation.engagement}
          digits={0}
          unit="°"
          least={30}
          most={180}
          onNumber={(n) => set({ engagement: n })}
        />
      </Row>
      <Pick
        label={say.restTool}
        value={settings.tools.some(({ id }) => id === operation.restTool) ? (operation.restTool as string) : ''}
        words={{ '': say.nothingMore, ...uprightTools(settings) }}
        onPick={(restTool) => set({ restTool: restTool || null })}
      />
    </>
  );
}

const uprightTools = ({ tools }: MillingSettings): Record<string, string> =>
  Object.fromEntries(tools.filter(({ kind }) => kind === 'end mill' || kind === 'ball').map(({ id, name }) => [id, name]));

function FloorField({ operation, settings, onChange }: Props<OperationOf<'carve'> | OperationOf<'inlay'>>) {
  return (
    <Pick
      label={say.floorTool}
      value={settings.tools.some(({ id }) => id === operation.floorTool) ? (operation.floorTool as string) : ''}
      words={{ '': say.theSameTool, ...uprightTools(settings) }}
      onPick={(floorTool) => onChange({ ...operation, floorTool: floorTool || null })}
    />
  );
}

function InlayFields({ operation, onChange }: Props<OperationOf<'inlay'>>) {
  const set = (change: Partial<typeof operation>): void => onChange({ ...operation, ...change });
  const unit = useJob((s) => s.job.unit);
  return (
    <>
      <Pick label={say.inlayPart} value={operation.part} words={say.inlayParts} onPick={(part) => set({ part })} />
      <Row>
        <Measure label={say.glue} mm={operation.glueMm} unit={unit} range="from zero" onMm={(glueMm) => set({ glueMm })} />
        <Measure label={say.saw} mm={operation.sawMm} unit={unit} range="from zero" onMm={(sawMm) => set({ sawMm })} />
      </Row>
    </>
  );
}

function HoleFields({ operation, onChange }: Props<OperationOf<'holes'>>) {
  const set = (change: Partial<typeof operation>): void => onChange({ ...operation, ...change });
  const unit = useJob((s) => s.job.unit);
  return (
    <>
      <Measure
        label={say.diameter}
        mm={operation.diameterMm}
        unit={unit}
        placeholder={say.anyDiameter}
        onMm={(diameterMm) => set({ diameterMm })}
        onEmpty={() => set({ diameterMm: null })}
      />
      <Row>
        <Measure label={say.peck} mm={operation.peckMm} unit={unit} onMm={(peckMm) => set({ peckMm })} />
        <Measure label={say.spot} mm={operation.spotMm} unit={unit} range="from zero" onMm={(spotMm) => set({ spotMm })} />
      </Row>
    </>
  );
}
