/** What of a drawing comes from the page's styles, and has to be written into a file of its own. */
const inherited = ["fill", "stroke", "font-family", "font-size", "font-weight", "text-anchor"] as const;

/** A drawing of the page as an SVG that stands by itself, on white ground. */
function standalone(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const [from, to] = [svg.querySelectorAll("*"), copy.querySelectorAll("*")];
  from.forEach((element, i) => {
    const style = getComputedStyle(element);
    for (const name of inherited) to[i]!.setAttribute(name, style.getPropertyValue(name));
    to[i]!.removeAttribute("class");
  });
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", `${width}`);
  copy.setAttribute("height", `${height}`);
  copy.setAttribute("viewBox", `0 0 ${width} ${height}`);
  const ground = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  for (const [name, value] of [
    ["width", "100%"],
    ["height", "100%"],
    ["fill", getComputedStyle(document.body).backgroundColor],
  ] as const)
    ground.setAttribute(name, value);
  copy.prepend(ground);
  return new XMLSerializer().serializeToString(copy);
}

function save(blob: Blob, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  // The browser has taken it by then.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

export const saveSvg = (svg: SVGSVGElement, name: string) =>
  save(new Blob([standalone(svg)], { type: "image/svg+xml" }), `${name}.svg`);

/** At twice its size, so that it is sharp on paper. */
export async function savePng(svg: SVGSVGElement, name: string) {
  const { width, height } = svg.getBoundingClientRect();
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standalone(svg))}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [width * 2, height * 2];
  canvas.getContext("2d")!.drawImage(image, 0, 0, width * 2, height * 2);
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
  if (blob) save(blob, `${name}.png`);
}

/** A table as comma-separated values, RFC 4180; what a spreadsheet would take for a formula is text. */
export function saveCsv(rows: (string | number)[][], name: string) {
  const cell = (value: string | number) => {
    if (typeof value === "number") return `${value}`;
    const text = /^[=+\-@\t]/.test(value) ? `'${value}` : value;
    return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
  };
  const csv = rows.map((row) => row.map(cell).join(",")).join("\r\n");
  save(new Blob(["\ufeff", csv, "\r\n"], { type: "text/csv;charset=utf-8" }), `${name}.csv`);
}
