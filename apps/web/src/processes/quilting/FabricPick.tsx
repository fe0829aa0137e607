'use client';
/** Of which fabric something is. */
import { fabricAt, type QuiltingSettings } from '@nuvet/core/quilting';
import { Pick } from '@/ui/Rows';

interface Props {
  readonly settings: Pick<QuiltingSettings, 'fabrics'>;
  readonly label: string;
  readonly value: number;
  readonly onFabric: (fabric: number) => void;
}

export function FabricPick({ settings, label, value, onFabric }: Props) {
  return (
    <Pick
      label={label}
      value={String(fabricAt(settings, value))}
      words={Object.fromEntries(settings.fabrics.map(({ name }, k) => [String(k), name]))}
      onPick={(word) => onFabric(Number(word))}
    />
  );
}
