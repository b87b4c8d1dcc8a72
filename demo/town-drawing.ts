import { seeded } from "./random";

/** A town as it is drawn on the map: everything in kilometres east and north of the harbour, made round and irregular. */

export type Spot = readonly [east: number, north: number];

export interface Drawn {
  kind: "land" | "moor" | "wood" | "river" | "district" | "street" | "ferry" | "water";
  name: string;
  shape: "area" | "line" | "spot";
  points: readonly Spot[];
}

interface ToDraw {
  districts: readonly { name: string; spots: readonly Spot[]; margin: number }[];
  streets: readonly { name: string; spots: readonly Spot[] }[];
  /** Where the river flows, from its mouth up. */
  river: readonly Spot[];
  ferry: readonly [Spot, Spot];
  island: string;
}

/** Coast with bays and a harbour, hills, woods, the river, and an outline around each district. */
export function drawTown({ districts, streets, river, ferry, island }: ToDraw): Drawn[] {
  const isle = districts.find((d) => d.name === island)!;
  return [
    { kind: "land", name: "", shape: "area", points: mainland },
    { kind: "land", name: "", shape: "area", points: around(isle.spots, 0.75, 5) },
    { kind: "moor", name: "High Moor", shape: "area", points: around(hill([1, 10.6], [7.4, 4.2]), 0.8, 11) },
    { kind: "wood", name: "Heron Wood", shape: "area", points: around(hill([4.6, 3.4], [1.7, 1.2]), 0.4, 12) },
    { kind: "wood", name: "Saltmarsh", shape: "area", points: around(hill([-4.3, 1.2], [1.6, 0.7]), 0.3, 13) },
    ...districts.map(({ name, spots, margin }, i) => ({
      kind: "district" as const,
      name,
      shape: "area" as const,
      points: around(spots, margin, 20 + i),
    })),
    { kind: "river", name: "The Marrow", shape: "line", points: smooth(river, false) },
    { kind: "ferry", name: "Ferry", shape: "line", points: ferry },
    ...streets.map(({ name, spots }) => ({ kind: "street" as const, name, shape: "line" as const, points: spots })),
    { kind: "water", name: "Marrow Bay", shape: "spot", points: [[-2.6, -2.2]] },
  ];
}

/** The coast from west to east, and round behind the horizon. */
const coast: readonly Spot[] = [
  [-26, -3.2],
  [-12, -1.6],
  [-9, -2.1],
  [-7.2, -0.6],
  [-5.6, -0.9],
  [-4.4, 0.15],
  [-3.1, -0.25],
  [-2.2, -0.75],
  [-1.5, -0.2],
  [-0.7, -0.12],
  [-0.2, -0.22],
  [0.1, -0.06],
  [0.5, -0.16],
  [0.9, -0.02],
  [1.3, -0.18],
  [2.1, -0.1],
  [2.9, -0.6],
  [3.9, -0.9],
  [4.7, -0.1],
  [6.2, 0.3],
  [7.6, -0.9],
  [9.5, -0.6],
  [13, -2.4],
  [26, -1.2],
];
const mainland: readonly Spot[] = [...smooth(coast, false), [26, 30], [-26, 30]];

const hill = ([east, north]: Spot, [wide, high]: Spot): Spot[] =>
  Array.from({ length: 18 }, (_, i) => [
    east + wide * Math.cos((i * Math.PI) / 9),
    north + high * Math.sin((i * Math.PI) / 9),
  ]);

/** An outline around points: as far as they reach in each direction, a margin, and the unevenness of something that has grown. */
function around(spots: readonly Spot[], margin: number, seed: number): Spot[] {
  const random = seeded(seed);
  const directions = 22;
  const [east, north] = [0, 1].map((axis) => {
    const values = spots.map((spot) => spot[axis]!);
    return (Math.min(...values) + Math.max(...values)) / 2;
  }) as [number, number];
  const outline = Array.from({ length: directions }, (_, i): Spot => {
    const angle = (i / directions) * 2 * Math.PI;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    // How far the points reach along this direction, near its ray.
    const reach = spots
      .map(([e, n]) => ({
        along: (e - east) * cos + (n - north) * sin,
        aside: Math.abs((n - north) * cos - (e - east) * sin),
      }))
      .filter(({ along, aside }) => along > 0 && aside < Math.max(along * 0.35, margin))
      .reduce((most, { along }) => Math.max(most, along), 0);
    const far = reach + margin * (0.75 + random.int(0, 50) / 100);
    return [east + far * cos, north + far * sin];
  });
  return smooth(outline, true);
}

/** Corners cut twice: G. Chaikin, "An algorithm for high-speed curve generation", 1974. */
function smooth(points: readonly Spot[], closed: boolean): Spot[] {
  const cut = (line: readonly Spot[]): Spot[] => {
    const pairs = line.flatMap((a, i) => {
      const b = line[i + 1] ?? (closed ? line[0]! : null);
      return b ? [[a, b] as const] : [];
    });
    const mix = (a: Spot, b: Spot, share: number): Spot => [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share];
    const inner = pairs.flatMap(([a, b]) => [mix(a, b, 0.25), mix(a, b, 0.75)]);
    return closed ? inner : [line[0]!, ...inner, line.at(-1)!];
  };
  const rounded = cut(cut(points));
  return closed ? [...rounded, rounded[0]!] : rounded;
}
