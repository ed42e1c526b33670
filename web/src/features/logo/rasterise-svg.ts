/** Longest side of the picture that an SVG file becomes, pixels: sharp at the size of a frame. */
const LONGEST_SIDE = 2048;

/**
 * An SVG file as a PNG picture with transparency, for places that take pictures and no layers. The browser draws it as an
 * image: nothing in it runs, and nothing is loaded.
 * @throws Error if the browser cannot draw it.
 */
export async function rasteriseSvg(file: File): Promise<File> {
  const address = URL.createObjectURL(new Blob([await file.arrayBuffer()], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    const [width, height] = [image.naturalWidth || LONGEST_SIDE, image.naturalHeight || LONGEST_SIDE];
    const k = LONGEST_SIDE / Math.max(width, height);
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(width * k));
    canvas.height = Math.max(1, Math.round(height * k));
    const context = canvas.getContext('2d');
    if (!context) throw new Error('no canvas');
    context.drawImage(image, 0, 0, canvas.width, canvas.height);
    const png = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    if (!png) throw new Error('no picture');
    return new File([png], file.name.replace(/\.svg$/i, '.png'), { type: 'image/png' });
  } finally {
    URL.revokeObjectURL(address);
  }
}
