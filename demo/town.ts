import { distanceKm, type Point } from "@/core/place/points";
import type { Town } from "@/gateways/town";
import type { Address } from "@/gateways/types";
import { seeded } from "./random";
import { drawTown, type Spot } from "./town-drawing";

/** Where the town lies: out in the empty South Atlantic. */
const origin: Point = { lng: -18.6, lat: -41.2 };
const kmPerDegree = { lng: 83.75, lat: 111.2 };

/** Kilometres east and north of the harbour. */
const at = (east: number, north: number): Point => ({
  lng: round(origin.lng + east / kmPerDegree.lng),
  lat: round(origin.lat + north / kmPerDegree.lat),
});
const round = (degrees: number): number => Math.round(degrees * 1e6) / 1e6;

interface District {
  name: string;
  /** South-west corner, columns and rows of streets, and kilometres between them. */
  corner: [number, number];
  columns: number;
  rows: number;
  step: number;
  kmh: number;
  addresses: number;
  /** First of its postcodes, `MW 101`, and how many. */
  postcodes: [first: number, count: number];
  streets: string[];
}

const districts: District[] = [
  {
    name: "Harbourside",
    corner: [-1.2, 0.1],
    columns: 9,
    rows: 6,
    step: 0.2,
    kmh: 22,
    addresses: 700,
    postcodes: [101, 9],
    streets: [
      "Quay Street",
      "Netmaker Row",
      "Lantern Street",
      "Chandler Lane",
      "Gull Steps",
      "Ropewalk Lane",
      "Anchor Street",
      "Saltpan Row",
      "Tide Street",
      "Beacon Street",
      "Herring Lane",
      "Mast Street",
      "Cooper’s Rise",
      "Pilot Row",
      "Cask Lane",
    ],
  },
  {
    name: "Old Town",
    corner: [1.2, 0.3],
    columns: 8,
    rows: 6,
    step: 0.14,
    kmh: 13,
    addresses: 480,
    postcodes: [201, 6],
    streets: [
      "Candle Lane",
      "Abbey Row",
      "Bellfounder Street",
      "Weaver Steps",
      "Mint Lane",
      "Well Court",
      "Tanner Row",
      "Scribe Lane",
      "Gate Street",
      "Orchard Court",
      "Almond Steps",
      "Cloister Lane",
      "Pepper Row",
      "Loom Street",
    ],
  },
  {
    name: "Northfield",
    corner: [-1.8, 2.6],
    columns: 11,
    rows: 8,
    step: 0.25,
    kmh: 32,
    addresses: 900,
    postcodes: [301, 12],
    streets: [
      "Alder Road",
      "Birch Road",
      "Cherry Close",
      "Dogwood Road",
      "Elder Road",
      "Fern Close",
      "Gorse Road",
      "Hazel Road",
      "Ivy Close",
      "Juniper Road",
      "Larch Road",
      "Maple Close",
      "Nettle Road",
      "Oak Road",
      "Pine Close",
      "Quince Road",
      "Rowan Road",
      "Sorrel Close",
      "Thistle Road",
    ],
  },
  {
    name: "Moor Edge",
    corner: [-6, 7],
    columns: 6,
    rows: 4,
    step: 2.2,
    kmh: 52,
    addresses: 220,
    postcodes: [401, 8],
    streets: [
      "Peat Track",
      "Drover Road",
      "Cairn Road",
      "Heather Track",
      "Standing Stone Road",
      "Lapwing Track",
      "Moss Road",
      "Ridge Road",
      "Curlew Track",
      "Fold Road",
    ],
  },
  {
    name: "Gull Island",
    corner: [3.5, -4.2],
    columns: 4,
    rows: 3,
    step: 0.45,
    kmh: 25,
    addresses: 100,
    postcodes: [501, 3],
    streets: [
      "Landing Road",
      "Lighthouse Road",
      "Puffin Lane",
      "Seal Lane",
      "Shingle Lane",
      "Kelp Lane",
      "Samphire Lane",
    ],
  },
];

/** Kilometres east of the river's line, and the rows at which a bridge crosses it. */
const riverEast = 0.9;
const bridges = [0.7, 3.1];

/**
 * The town of the demo: streets, about 2,400 addresses with postcodes, and a road graph with a river
 * that only two bridges cross and an island that only a ferry reaches.
 */
export function makeTown(seed: number): Town {
  const random = seeded(seed);
  const nodes: Point[] = [];
  const edges: [number, number, number][] = [];
  const addresses: Address[] = [];
  const corners = new Map<string, number>();
  const streets = new Map<string, Spot[]>();

  const connect = (a: number, b: number, kmh: number) =>
    edges.push([a, b, Math.max(0.1, Math.round(((distanceKm(nodes[a]!, nodes[b]!) * 1.15) / kmh) * 600) / 10)]);
  const nearest = (east: number, north: number, among: readonly number[]): number => {
    const wanted = at(east, north);
    return among.reduce((best, n) => (distanceKm(nodes[n]!, wanted) < distanceKm(nodes[best]!, wanted) ? n : best));
  };

  const nodesOf = districts.map((district) => {
    const first = nodes.length;
    for (let row = 0; row < district.rows; row++)
      for (let column = 0; column < district.columns; column++) {
        const wobble = () => (random.int(-25, 25) / 100) * district.step;
        const east = district.corner[0] + column * district.step + wobble();
        const north = district.corner[1] + row * district.step + wobble();
        corners.set(`${district.name} ${column} ${row}`, nodes.push(at(east, north)) - 1);
        const here = nodes.length - 1;
        // The Marrow rises below the moor.
        const across = (other: Point) =>
          district.name !== "Moor Edge" &&
          (nodes[here]!.lng - at(riverEast, 0).lng) * (other.lng - at(riverEast, 0).lng) < 0;
        if (column > 0 && !across(nodes[here - 1]!)) connect(here - 1, here, district.kmh);
        if (row > 0 && random.chance(0.93) && !across(nodes[here - district.columns]!))
          connect(here - district.columns, here, district.kmh);
      }
    addAddresses(district);
    return Array.from({ length: nodes.length - first }, (_, i) => first + i);
  });

  const [harbour, oldTown, northfield, moor, island] = nodesOf as [number[], number[], number[], number[], number[]];
  connect(nearest(0.4, 0.7, harbour), nearest(1.2, bridges[0]!, oldTown), 18);
  connect(nearest(0, 1.2, harbour), nearest(-0.2, 2.6, northfield), 40);
  connect(nearest(-1, 1.2, harbour), nearest(-1.4, 2.6, northfield), 40);
  connect(nearest(1.6, 1, oldTown), nearest(1.0, bridges[1]!, northfield), 28);
  connect(nearest(-0.8, 4.4, northfield), nearest(-1.6, 7, moor), 60);
  connect(nearest(0.4, 4.4, northfield), nearest(0.6, 7, moor), 60);
  // A road that a lost street cut in two would strand somebody.
  joinComponents();
  edges.push([nearest(0.4, 0.1, harbour), nearest(3.5, -3.3, island), 25]);

  return { nodes, edges, addresses, features: { type: "FeatureCollection", features: drawn() } };

  /** Houses along the streets of a district, numbered odd on one side and even on the other. */
  function addAddresses({
    name,
    columns,
    rows,
    addresses: count,
    postcodes: [firstCode, codes],
    streets: ownNames,
    step,
  }: District) {
    const names = random.shuffle(ownNames);
    const stretches: { street: string; a: number; b: number; along: number }[] = [];
    for (let row = 0; row < rows; row++)
      for (let c = 1; c < columns; c++)
        stretches.push({
          street: names[row % names.length]!,
          a: corners.get(`${name} ${c - 1} ${row}`)!,
          b: corners.get(`${name} ${c} ${row}`)!,
          along: c - 1,
        });
    for (let column = 0; column < columns; column++)
      for (let r = 1; r < rows; r++)
        stretches.push({
          street: names[(rows + column) % names.length]!,
          a: corners.get(`${name} ${column} ${r - 1}`)!,
          b: corners.get(`${name} ${column} ${r}`)!,
          along: r - 1,
        });
    for (const { street, a, b } of stretches) {
      const line = streets.get(street) ?? [];
      if (line.length === 0) line.push(spotOf(nodes[a]!));
      line.push(spotOf(nodes[b]!));
      streets.set(street, line);
    }
    const each = Math.ceil(count / stretches.length);
    let made = 0;
    for (const { street, a, b, along } of stretches)
      for (let i = 0; i < each && made < count; i++, made++) {
        const share = (i + 0.5) / each;
        const [from, to] = [nodes[a]!, nodes[b]!];
        const aside = ((i % 2 ? 1 : -1) * Math.min(0.02, step / 10)) / kmPerDegree.lat;
        const lng = round(from.lng + share * (to.lng - from.lng) + aside);
        const lat = round(from.lat + share * (to.lat - from.lat) + aside);
        const code =
          firstCode +
          Math.min(
            codes - 1,
            Math.floor((stretches.findIndex((s) => s.a === a && s.b === b) / stretches.length) * codes),
          );
        addresses.push({
          id: `a${addresses.length + 1}`,
          line: `${along * each + i + 1} ${street}, ${name}`,
          postcode: `MW ${code}`,
          town: name,
          lng,
          lat,
        });
      }
  }

  function joinComponents() {
    const group = nodes.map((_, i) => i);
    const find = (i: number): number => (group[i] === i ? i : (group[i] = find(group[i]!)));
    for (const [a, b] of edges) group[find(a)] = find(b);
    for (const some of [harbour, oldTown, northfield, moor, island])
      for (const node of some)
        if (find(node) !== find(some[0]!)) {
          const same = some.filter((n) => find(n) === find(some[0]!));
          const joint = nearest(
            (nodes[node]!.lng - origin.lng) * kmPerDegree.lng,
            (nodes[node]!.lat - origin.lat) * kmPerDegree.lat,
            same,
          );
          connect(node, joint, 20);
          group[find(node)] = find(joint);
        }
  }

  /** What the map shows, as GeoJSON. */
  function drawn() {
    const [mouth, ferryTo] = [spotOf(nodes[nearest(0.4, 0.1, harbour)]!), spotOf(nodes[nearest(3.5, -3.3, island)]!)];
    const shapes = drawTown({
      districts: districts.map((district, i) => ({
        name: district.name,
        spots: nodesOf[i]!.map((node) => spotOf(nodes[node]!)),
        margin: Math.max(0.16, district.step * 0.45),
      })),
      streets: [...streets].map(([name, spots]) => ({ name, spots })),
      river: [
        [riverEast, -0.05],
        [riverEast + 0.05, 1],
        [riverEast, 2.4],
        [riverEast + 0.1, 4.6],
        [riverEast + 0.7, 6.4],
        [riverEast + 0.3, 8.2],
        [riverEast + 1.6, 10],
        [riverEast + 1.2, 12.5],
      ],
      ferry: [mouth, ferryTo],
      island: "Gull Island",
    });
    return shapes.map(({ kind, name, shape, points }) => {
      const coordinates = points.map(([east, north]) => at(east, north)).map(({ lng, lat }) => [lng, lat]);
      const geometry =
        shape === "spot"
          ? { type: "Point", coordinates: coordinates[0] }
          : shape === "line"
            ? { type: "LineString", coordinates }
            : { type: "Polygon", coordinates: [closed(coordinates)] };
      return { type: "Feature", properties: { kind, name }, geometry };
    });
  }
}

const spotOf = ({ lng, lat }: Point): Spot => [
  (lng - origin.lng) * kmPerDegree.lng,
  (lat - origin.lat) * kmPerDegree.lat,
];

const closed = <T>(ring: readonly T[]): T[] =>
  JSON.stringify(ring[0]) === JSON.stringify(ring.at(-1)) ? [...ring] : [...ring, ring[0]!];
