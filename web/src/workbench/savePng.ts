/** Saves a drawing as PNG, twice as sharp as it is drawn; answers what became of it. */
export async function savePng(planId: string, name: string): Promise<string> {
  const answer = await fetch(`/api/plans/${planId}/drawings/${name}.svg`);
  if (!answer.ok) return "The plan has nothing to draw yet.";
  const svg = await answer.text();
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await picture.decode();
  const canvas = document.createElement("canvas");
  canvas.width = picture.naturalWidth * 2;
  canvas.height = picture.naturalHeight * 2;
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
  if (!blob) return "The browser cannot make a PNG of it.";
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = `${name}.png`;
  link.click();
  URL.revokeObjectURL(link.href);
  return `Saved as ${name}.png.`;
}
