import sharp from "sharp";

/** Pictures of the demo's people, services and town: drawn here as SVG (W3C, Scalable Vector Graphics 2), kept as PNG. */

const wall = "#DDE3D8";
const [ink, pine, ember, honey, moss, lake, mist] = [
  "#1E2A28",
  "#24443F",
  "#B4431F",
  "#D99A25",
  "#557A3A",
  "#2E6C80",
  "#C9D3CA",
];
const [brick, stone, soot] = ["#A0563F", "#CFC7B4", "#4A4A46"];

const picture = (width: number, height: number, inside: string): Promise<Buffer> =>
  sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${inside}</svg>`,
    ),
  )
    .png()
    .toBuffer();

const rect = (x: number, y: number, w: number, h: number, fill: string, r = 0) =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" rx="${r}" fill="${fill}"/>`;
const round = (x: number, y: number, rx: number, fill: string, ry = rx) =>
  `<ellipse cx="${x}" cy="${y}" rx="${rx}" ry="${ry}" fill="${fill}"/>`;
const shape = (d: string, fill: string) => `<path d="${d}" fill="${fill}"/>`;
const line = (d: string, colour: string, width: number) =>
  `<path d="${d}" fill="none" stroke="${colour}" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"/>`;
const times = (count: number, one: (i: number) => string) => Array.from({ length: count }, (_, i) => one(i)).join("");

interface Face {
  skin: string;
  hair: string;
  cut: "short" | "bun" | "long" | "curls" | "cap";
  beard?: boolean;
  glasses?: boolean;
  coat: string;
  ground: string;
}

const faces: Record<string, Face> = {
  "Bram Okafor": { skin: "#7A4E34", hair: "#22190F", cut: "short", beard: true, coat: pine, ground: "#DCE3D8" },
  "Petra Lindqvist": { skin: "#F0CDB2", hair: "#C79A4B", cut: "bun", coat: lake, ground: "#E8E0D0" },
  "Yusuf Demir": { skin: "#D6A47C", hair: "#2B211A", cut: "cap", beard: true, coat: "#4A5578", ground: "#E3DCD2" },
  "Hanna Sorel": { skin: "#E9BC9B", hair: "#6B3A22", cut: "long", coat: "#7A4B7C", ground: "#DFE4E2" },
  "Kofi Mensah": { skin: "#5D3A27", hair: "#1A120C", cut: "curls", glasses: true, coat: "#946E1F", ground: "#E6E2D6" },
  "Luca Arden": { skin: "#EFC6A6", hair: "#4B3423", cut: "curls", coat: moss, ground: "#E4DED6" },
};

/** Head and shoulders in a work coat; null for whoever has sat for no picture. */
export function portrait(name: string): Promise<Buffer> | null {
  const face = faces[name];
  if (!face) return null;
  const { skin, hair, cut, beard, glasses, coat, ground } = face;
  const behind = {
    short: "",
    cap: "",
    bun: round(240, 92, 46, hair),
    long: shape("M132 230 Q130 90 240 90 Q350 90 348 230 L356 360 Q240 400 124 360 Z", hair),
    curls: times(9, (i) =>
      round(240 + 108 * Math.cos(Math.PI * (1 + i / 8)), 220 + 118 * Math.sin(Math.PI * (1 + i / 8)), 36, hair),
    ),
  }[cut];
  const above = {
    short: shape(
      "M140 214 Q136 104 240 100 Q344 104 340 214 Q330 160 288 156 Q220 160 188 150 Q150 170 140 214 Z",
      hair,
    ),
    bun: shape("M138 226 Q136 106 240 104 Q344 106 342 226 Q322 168 240 160 Q158 168 138 226 Z", hair),
    long: shape("M136 240 Q132 104 240 102 Q348 104 344 240 Q336 170 262 150 Q190 190 136 240 Z", hair),
    curls: times(5, (i) => round(168 + i * 36, 132 + Math.abs(2 - i) * 10, 34, hair)),
    cap: shape("M134 196 Q134 96 240 94 Q346 96 346 196 Z", pine) + rect(126, 188, 252, 20, ink, 10),
  }[cut];
  return picture(
    480,
    528,
    rect(0, 0, 480, 528, ground) +
      behind +
      shape("M40 528 Q52 404 170 392 L310 392 Q428 404 440 528 Z", coat) +
      shape("M196 330 H284 V404 Q240 440 196 404 Z", skin) +
      shape("M196 352 Q240 386 284 352 V372 Q240 402 196 372 Z", "#00000022") +
      shape("M168 396 L240 470 L312 396 L330 408 L240 512 L150 408 Z", "#ffffff33") +
      round(240, 238, 102, skin, 120) +
      (beard ? shape("M146 262 Q150 366 240 370 Q330 366 334 262 Q318 312 240 308 Q162 312 146 262 Z", hair) : "") +
      above +
      round(200, 236, 9, ink) +
      round(280, 236, 9, ink) +
      line("M180 212 Q200 202 218 212", hair, 8) +
      line("M262 212 Q280 202 300 212", hair, 8) +
      (glasses
        ? `<g fill="none" stroke="${ink}" stroke-width="7"><circle cx="200" cy="238" r="32"/><circle cx="280" cy="238" r="32"/><path d="M232 234 Q240 228 248 234"/></g>`
        : "") +
      line("M240 246 L232 276 L246 278", "#00000044", 6) +
      line("M206 308 Q240 332 274 308", beard ? "#F6E7DA" : "#8C3F33", 8),
  );
}

const flue = (x: number) =>
  rect(x, 0, 220, 640, brick) +
  times(13, (i) => rect(x, i * 50, 220, 4, "#00000018") + rect(x + (i % 2 ? 70 : 145), i * 50, 4, 50, "#00000018")) +
  rect(x + 55, 0, 110, 640, soot);
const flame = (x: number, y: number, size: number) =>
  shape(
    `M${x} ${y} q${-size} ${-size * 0.7} ${-size * 0.15} ${-size * 2} q${size * 0.2} ${size * 0.7} ${size * 0.5} ${size * 0.5} q${size * 0.25} ${-size * 0.35} ${size * 0.1} ${-size * 0.8} q${size * 0.9} ${size} ${size * 0.15} ${size * 2.3} Z`,
    ember,
  ) +
  shape(
    `M${x + size * 0.12} ${y} q${-size * 0.5} ${-size * 0.4} 0 ${-size * 1.1} q${size * 0.6} ${size * 0.5} ${size * 0.2} ${size * 1.1} Z`,
    honey,
  );
const pot = (x: number, y: number) =>
  shape(`M${x} ${y} h160 l22 230 h-204 Z`, brick) +
  rect(x - 14, y - 24, 188, 34, "#8C4A36", 8) +
  rect(x - 60, y + 230, 280, 210, stone);
const sky = rect(0, 0, 960, 640, "#D9E4E6") + round(760, 130, 62, "#F3E6C4");

/** What is done, by the code of its service. */
const works: Record<string, string> = {
  SW:
    rect(0, 0, 960, 640, wall) +
    flue(370) +
    line("M480 640 V250", stone, 14) +
    times(22, (i) =>
      line(`M480 210 L${480 + 50 * Math.cos((i / 11) * Math.PI)} ${210 + 50 * Math.sin((i / 11) * Math.PI)}`, ink, 7),
    ) +
    round(480, 210, 16, honey),
  ST:
    rect(0, 0, 960, 640, "#E4DED2") +
    rect(0, 540, 960, 100, stone) +
    rect(440, 0, 80, 190, soot) +
    rect(290, 180, 380, 330, "#33373A", 20) +
    rect(270, 170, 420, 30, ink, 8) +
    rect(340, 250, 280, 190, "#1B1D1E", 14) +
    flame(430, 430, 60) +
    flame(520, 432, 74) +
    rect(320, 510, 34, 50, ink) +
    rect(606, 510, 34, 50, ink) +
    round(650, 345, 10, honey),
  GA:
    rect(0, 0, 960, 640, "#E6E2D6") +
    rect(210, 130, 540, 430, "#F8F5EC", 12) +
    rect(270, 200, 420, 360, ink) +
    rect(160, 100, 640, 50, stone, 8) +
    times(5, (i) => flame(320 + i * 78, 530, 44 + (i % 2) * 14)) +
    rect(290, 526, 380, 16, "#77716A", 6) +
    rect(0, 560, 960, 80, stone),
  CS:
    rect(0, 0, 960, 640, wall) +
    flue(90) +
    line("M200 0 Q206 180 200 330", honey, 14) +
    rect(180, 320, 40, 80, "#222", 12) +
    round(200, 404, 26, "#9CC7D6") +
    shape("M200 420 L140 600 H260 Z", "#F3E6C488") +
    rect(480, 160, 380, 300, "#33373A", 22) +
    rect(512, 192, 316, 236, "#16323A", 10) +
    round(670, 310, 88, "#355E66") +
    round(670, 310, 54, "#0E1D21") +
    rect(620, 460, 100, 60, "#33373A") +
    rect(560, 516, 220, 20, ink, 8),
  BG:
    sky +
    pot(400, 210) +
    `<g fill="none" stroke="${ink}" stroke-width="7"><path d="M400 188 Q400 70 480 70 Q560 70 560 188 M440 188 Q436 80 480 70 Q524 80 520 188 M480 70 V188 M404 140 H556"/></g>` +
    shape("M660 236 q46 -60 112 -30 q20 -26 46 -10 l-22 14 q-4 66 -84 70 q-40 0 -52 -44 Z", ink) +
    round(806, 198, 5, "#fff") +
    line("M730 276 v40 M756 274 v42", ember, 5),
  CW:
    sky +
    pot(400, 260) +
    rect(430, 150, 100, 90, "#9AA3A3") +
    shape("M390 150 Q480 40 570 150 Z", "#77807F") +
    line("M600 120 q60 -20 110 10 M610 160 q50 -16 100 6", "#9DB7BA", 9),
  FR:
    rect(0, 0, 960, 640, wall) +
    flue(370) +
    times(16, (i) => rect(440, i * 40, 80, 30, i % 2 ? "#B9C0BF" : "#9AA3A3", 12)) +
    line("M640 120 q90 40 60 150 q-40 110 80 170", "#9AA3A3", 34),
  SD:
    rect(0, 0, 960, 640, "#DDE3E2") +
    rect(250, 250, 460, 390, "#F8F5EC") +
    rect(340, 340, 280, 300, soot) +
    rect(200, 210, 560, 50, stone, 8) +
    line("M480 600 q-60 -60 0 -120 q60 -60 0 -120", mist, 26) +
    line("M420 610 q-40 -50 0 -100 q40 -50 0 -100", "#E7ECE7", 18) +
    line("M540 610 q-40 -50 0 -100 q40 -50 0 -100", "#E7ECE7", 18),
  LC:
    rect(0, 0, 960, 640, "#E4DED2") +
    rect(290, 70, 380, 500, "#fff", 6) +
    rect(340, 130, 220, 22, pine, 4) +
    times(6, (i) => rect(340, 190 + i * 40, i % 3 === 2 ? 190 : 280, 12, mist, 6)) +
    round(590, 490, 52, ember) +
    shape("M560 520 L548 610 L590 580 L632 610 L620 520 Z", ember) +
    round(590, 490, 34, "#F0D9CF"),
  PO:
    rect(0, 0, 960, 640, "#E8E0D0") +
    shape("M230 520 Q230 170 480 170 Q730 170 730 520 Z", brick) +
    rect(440, 60, 80, 140, brick) +
    shape("M370 520 Q370 360 480 360 Q590 360 590 520 Z", "#1B1D1E") +
    flame(470, 512, 50) +
    rect(180, 516, 600, 60, stone, 6),
};

export const workPicture = (code: string): Promise<Buffer> | null => {
  const drawn = works[code === "RV" ? "FR" : code];
  return drawn ? picture(960, 640, drawn) : null;
};

/** The town as one sees it from the bay: the front door's own picture. */
export const townPicture = (): Promise<Buffer> => {
  const house = (x: number, top: number, w: number, wall: string, roof: string) =>
    rect(x, top, w, 600 - top, wall) +
    shape(`M${x - 14} ${top} L${x + w / 2} ${top - w * 0.5} L${x + w + 14} ${top} Z`, roof) +
    rect(x + w * 0.7, top - w * 0.52, w * 0.13, w * 0.36, brick) +
    times(2, (i) => rect(x + w * (0.2 + i * 0.38), top + 46, w * 0.2, 62, "#5E7C82", 4)) +
    rect(x + w * 0.41, 500, w * 0.17, 100, pine, 4);
  const walls = ["#F3E7D3", "#E4D4BE", "#F0DCCB", "#DCE3D8", "#EFE6D6", "#E6CDBB"];
  const roofs = ["#8C4A36", "#5E6A66", "#7A4332", "#4A5578", "#A0563F", "#6B5B45"];
  return picture(
    1600,
    700,
    rect(0, 0, 1600, 700, "#D9E6E6") +
      round(1320, 130, 70, "#F5E6BE") +
      shape("M0 330 Q260 170 560 270 Q820 140 1120 250 Q1380 160 1600 280 V600 H0 Z", "#BFCDB8") +
      shape("M0 400 Q300 280 700 360 Q1100 270 1600 380 V600 H0 Z", "#A9BBA4") +
      times(9, (i) => house(40 + i * 172, 350 + ((i * 53) % 90), 132, walls[i % 6]!, roofs[(i * 5 + 1) % 6]!)) +
      line("M250 250 q-20 -40 10 -70 q30 -30 4 -70", "#F4F1EA", 16) +
      line("M940 262 q-18 -36 8 -62 q26 -28 4 -62", "#F4F1EA", 14) +
      rect(0, 590, 1600, 26, stone) +
      rect(0, 616, 1600, 84, "#8FB0B6") +
      times(7, (i) => line(`M${60 + i * 230} 655 q30 -14 60 0 q30 14 60 0`, "#B9D0D2", 6)) +
      shape("M1180 640 L1230 680 H1360 L1400 640 Z", ember) +
      rect(1282, 530, 8, 112, ink) +
      shape("M1294 540 L1370 632 H1294 Z", "#F8F5EC"),
  );
};
