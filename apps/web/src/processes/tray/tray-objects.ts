/** In: a tray's settings, and what one object is set to. Out: the settings with that; an object for which nothing is set is not kept. */
import { mostObjects, type TrayObject, type TraySettings } from '@nuvet/core/tray';

const plain = (pieceId: string): TrayObject => ({ pieceId, heightMm: null, edge: null, depthMm: null, place: null });

export const objectOf = ({ objects }: Pick<TraySettings, 'objects'>, pieceId: string): TrayObject =>
  objects.find((one) => one.pieceId === pieceId) ?? plain(pieceId);

export function withObject(settings: TraySettings, pieceId: string, change: Partial<TrayObject>): Pick<TraySettings, 'objects'> {
  const changed = { ...objectOf(settings, pieceId), ...change };
  const others = settings.objects.filter((one) => one.pieceId !== pieceId);
  return { objects: [...others, changed].slice(-mostObjects) };
}
