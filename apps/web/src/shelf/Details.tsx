'use client';
/**
 * What of an item does not go into a row of the table: its photograph, what is left of its sheets, how machines cut it, speeds by
 * material, files by machine; and the jobs that use it.
 */
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import PhotoOutlined from '@mui/icons-material/PhotoOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import { pathBox, polygonPath } from '@nuvet/core/plane';
import { processKinds } from '@nuvet/core/processes';
import type { Material, ShelfItem, Tool } from '@nuvet/core/shelf';
import { useRef, useState } from 'react';
import { NumberField } from '@/ui/NumberField';
import { Measure, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { smallPhoto } from './photo';
import { ShelfName } from './ShelfName';
import { Swatch } from './Swatch';
import { changeItem } from './shelf-edits';
import { ofKind, useShelfStore } from './shelf-store';
import { UsedBy } from './UsedBy';

interface Props<K extends ShelfItem['kind']> {
  readonly item: ShelfItem<K>;
  readonly unit: 'mm' | 'in';
}

const say = words.shelf;

export function Details({ item, unit }: Props<ShelfItem['kind']>) {
  return (
    <Box sx={{ display: 'grid', gap: 2.25 }}>
      <Typography variant="h2">{item.value.name}</Typography>
      {item.kind === 'material' && <OfMaterial item={item as ShelfItem<'material'>} unit={unit} />}
      {item.kind === 'tool' && <OfTool item={item as ShelfItem<'tool'>} unit={unit} />}
      {item.kind === 'machine' && <OfMachine item={item as ShelfItem<'machine'>} />}
      {item.kind !== 'tool' && <UsedBy item={item} />}
    </Box>
  );
}

function OfMaterial({ item, unit }: Props<'material'>) {
  const { value } = item;
  const set = (change: Partial<Material>) => void changeItem(item, { ...value, ...change });
  return (
    <>
      <Photo item={item} unit={unit} />
      <Section title={say.cuttingIt}>
        {value.onMachines.map(({ machine, process, kerfMm }) => (
          <Reading key={`${machine} ${process}`} name={`${processKinds[process]?.word ?? process}, ${machine}`}>
            {kerfMm === null ? say.noKerf : say.kerf(printBoth(kerfMm, unit))}
          </Reading>
        ))}
        {value.onMachines.length === 0 && (
          <Typography variant="body2" color="textSecondary">
            {say.noKerf}
          </Typography>
        )}
      </Section>
      <Leftovers value={value} unit={unit} onLeftovers={(leftovers) => set({ leftovers })} />
    </>
  );
}

function Photo({ item, unit }: Props<'material'>) {
  const { photo, colour } = item.value;
  const input = useRef<HTMLInputElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const set = (change: Partial<Material>) => void changeItem(item, { ...item.value, ...change });
  const take = async (file: File | undefined) => {
    if (!file) return;
    try {
      const { jpegBase64, aspect } = await smallPhoto(file);
      const widthMm = photo?.widthMm ?? 100;
      set({ photo: { jpegBase64, widthMm, heightMm: widthMm * aspect } });
      setFault(null);
    } catch {
      setFault(say.photoFailed);
    }
  };
  return (
    <Section title={say.photo}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '96px 1fr', gap: 1.5, alignItems: 'start', mt: 0.5 }}>
        <Swatch material={{ photo, colour }} sizePx={96} />
        <Box sx={{ display: 'grid', gap: 1 }}>
          <Button size="small" variant="outlined" startIcon={<PhotoOutlined />} onClick={() => input.current?.click()}>
            {say.takePhoto}
          </Button>
          {photo && (
            <>
              <Measure
                label={say.photoWidth}
                mm={photo.widthMm}
                unit={unit}
                onMm={(widthMm) => set({ photo: { ...photo, widthMm, heightMm: (photo.heightMm * widthMm) / photo.widthMm } })}
              />
              <Button size="small" color="inherit" onClick={() => set({ photo: null })}>
                {say.removePhoto}
              </Button>
            </>
          )}
          <Typography variant="caption" color={fault ? 'error' : 'textSecondary'}>
            {fault ?? say.photoExplanation}
          </Typography>
        </Box>
      </Box>
      <input
        ref={input}
        type="file"
        accept="image/*"
        hidden
        aria-label={say.takePhoto}
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </Section>
  );
}

interface LeftoversProps {
  readonly value: Material;
  readonly unit: 'mm' | 'in';
  readonly onLeftovers: (leftovers: Material['leftovers']) => void;
}

function Leftovers({ value: { leftovers }, unit, onLeftovers }: LeftoversProps) {
  const [size, setSize] = useState({ w: 200, h: 100 });
  const add = () => {
    const { w, h } = size;
    const corners = [{ x: 0, y: 0 }, { x: w, y: 0 }, { x: w, y: h }, { x: 0, y: h }]; // biome-ignore format: corners
    onLeftovers([...leftovers, { name: say.leftoverName(leftovers.length + 1), outline: polygonPath(corners) }]);
  };
  return (
    <Section title={say.leftovers}>
      {leftovers.map(({ name, outline }, k) => {
        const { minX, minY, maxX, maxY } = pathBox(outline);
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: two of the same name are told apart by their place
          <Box key={k} sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
            <Box sx={{ flex: 1 }}>
              <Reading name={name}>{say.size(printBoth(maxX - minX, unit), printBoth(maxY - minY, unit))}</Reading>
            </Box>
            <IconButton
              size="small"
              aria-label={`${say.remove} ${name}`}
              onClick={() => onLeftovers(leftovers.filter((_, other) => other !== k))}
            >
              <DeleteOutlined fontSize="small" />
            </IconButton>
          </Box>
        );
      })}
      {leftovers.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          {say.noLeftovers}
        </Typography>
      )}
      <Box sx={{ mt: 1 }}>
        <Row>
          <Measure label={say.leftoverWidth} mm={size.w} unit={unit} onMm={(w) => setSize((now) => ({ ...now, w }))} />
          <Measure label={say.leftoverHeight} mm={size.h} unit={unit} onMm={(h) => setSize((now) => ({ ...now, h }))} />
        </Row>
      </Box>
      <Button size="small" onClick={add}>
        {say.addLeftover}
      </Button>
    </Section>
  );
}

function OfTool({ item }: Props<'tool'>) {
  const { value } = item;
  const [name, setName] = useState('');
  const materials = ofKind(
    useShelfStore((s) => s.items),
    'material',
  );
  const set = (inMaterials: Tool['inMaterials']) => void changeItem(item, { ...value, inMaterials });
  return (
    <Section title={say.inMaterials}>
      {value.inMaterials.map((one, k) => {
        const change = (next: Partial<typeof one>) => set(value.inMaterials.map((other) => (other === one ? { ...one, ...next } : other)));
        return (
          <Box key={one.material} role="group" aria-label={one.material} sx={{ my: 1 }}>
            <Box sx={{ display: 'flex', alignItems: 'center' }}>
              <Typography variant="body2" sx={{ flex: 1, fontWeight: 600 }}>
                {one.material}
              </Typography>
              <IconButton
                size="small"
                aria-label={`${say.remove} ${one.material}`}
                onClick={() => set(value.inMaterials.filter((_, other) => other !== k))}
              >
                <DeleteOutlined fontSize="small" />
              </IconButton>
            </Box>
            <Row>
              <NumberField
                label={say.speed}
                value={one.speedRpm ?? 0}
                digits={0}
                unit="1/min"
                least={1}
                most={200_000}
                onNumber={(n) => change({ speedRpm: n })}
              />
              <NumberField
                label={say.feed}
                value={one.feedMmPerMin ?? 0}
                digits={0}
                unit="mm/min"
                least={1}
                most={200_000}
                onNumber={(n) => change({ feedMmPerMin: n })}
              />
            </Row>
          </Box>
        );
      })}
      <Box sx={{ display: 'grid', gap: 1, mt: 1 }}>
        <ShelfName label={say.material} name={name} known={materials.map((m) => m.value.name)} longest={100} onName={setName} />
        <Button
          size="small"
          disabled={name.trim() === '' || value.inMaterials.some(({ material }) => material === name.trim())}
          onClick={() => {
            const { speedRpm, feedMmPerMin } = value;
            set([...value.inMaterials, { material: name.trim(), speedRpm, feedMmPerMin }]);
            setName('');
          }}
        >
          {say.addMaterialSpeed}
        </Button>
      </Box>
    </Section>
  );
}

function OfMachine({ item: { value } }: { item: ShelfItem<'machine'> }) {
  const kind = processKinds[value.process];
  const files = value.files.map((name) => kind?.files[name]?.word ?? name);
  return (
    <Section title={say.files}>
      <Typography variant="body2">{files.length > 0 ? files.join(', ') : say.noFiles}</Typography>
      {kind && (
        <Typography variant="caption" color="textSecondary">
          {kind.about}
        </Typography>
      )}
    </Section>
  );
}
