/**
 * The colours: paper-warm ground, ink, verdigris for what to do next, madder for what is wrong, brass for warnings.
 */
export const colours = {
  ground: '#F5F1E8',
  sheet: '#FFFDF8',
  ink: '#20303A',
  quietInk: '#55646D',
  line: '#DCD4C3',
  verdigris: '#1E7B6B',
  madder: '#B1452E',
  brass: '#8A6512',
  plum: '#7A4B86',
  indigo: '#35508F',
  slate: '#2F6F8F',
  paleVerdigris: '#E4EFE9',
} as const;
