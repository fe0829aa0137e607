'use client';
/**
 * How a material looks: its photograph at true scale, or its colour.
 */
import Box from '@mui/material/Box';
import type { Material } from '@nuvet/core/shelf';
import { colours } from '@/ui/colours';

/** Screens show about so many pixels in a millimetre, by the CSS inch. */
const pxPerMm = 96 / 25.4;

export function Swatch({ material: { photo, colour }, sizePx = 40 }: { material: Pick<Material, 'photo' | 'colour'>; sizePx?: number }) {
  return (
    <Box
      aria-hidden="true"
      sx={{
        width: sizePx,
        height: sizePx,
        borderRadius: 1,
        border: `1px solid ${colours.line}`,
        bgcolor: colour ?? colours.sheet,
        ...(photo && {
          backgroundImage: `url(data:image/jpeg;base64,${photo.jpegBase64})`,
          backgroundSize: `${photo.widthMm * pxPerMm}px ${photo.heightMm * pxPerMm}px`,
        }),
      }}
    />
  );
}
