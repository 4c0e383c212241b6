/** What a canvas shows as a small PNG, filled and cut to the size, in base64. */
export function shrunk(source: HTMLCanvasElement, width: number, height: number): string {
  const small = document.createElement('canvas');
  small.width = width;
  small.height = height;
  const scale = Math.max(width / source.width, height / source.height);
  const [w, h] = [source.width * scale, source.height * scale];
  small.getContext('2d')!.drawImage(source, (width - w) / 2, (height - h) / 2, w, h);
  return small.toDataURL('image/png').split(',')[1]!;
}
