import { distanceKm, type Point } from "@/core/place/points";
import TinyQueue from "tinyqueue";
import { numberedPlaces } from "./numbered-places";
import type { RoadGateway } from "./types";

/** Roads as a graph: junctions, and stretches between two of them, drivable both ways. */
export interface RoadGraph {
  nodes: Point[];
  /** From node, to node, minutes. */
  edges: [number, number, number][];
}

/**
 * Shortest driving time on the graph (Dijkstra, A note on two problems in connexion with graphs,
 * 1959). One search per junction is made when it is first asked for, and kept: roads do not change
 * while the application runs.
 */
export function graphRoads(graph: RoadGraph): RoadGateway {
  const neighbours: [number, number][][] = graph.nodes.map(() => []);
  for (const [a, b, minutes] of graph.edges) {
    neighbours[a]!.push([b, minutes]);
    neighbours[b]!.push([a, minutes]);
  }
  const { numberOf, points } = numberedPlaces();
  /** The junction next to each place. */
  const junctions: number[] = [];
  const searches: Float32Array[] = [];

  return {
    place(point) {
      const number = numberOf(point);
      junctions[number] ??= nearestNode(point, graph.nodes);
      return number;
    },
    minutes(from, to) {
      if (from === to) return 0;
      const [a, b] = [junctions[from], junctions[to]];
      if (a === undefined || b === undefined)
        throw new RangeError(`There is no place ${a === undefined ? from : to}: ${points.length} are known`);
      const search = (searches[a] ??= shortestFrom(a, neighbours));
      return Math.max(1, Math.ceil(search[b]!));
    },
    revision: () => 0,
  };
}

function nearestNode(point: Point, nodes: readonly Point[]): number {
  let near = { node: 0, walk: Infinity };
  for (const [node, at] of nodes.entries()) {
    const walk = distanceKm(point, at);
    if (walk < near.walk) near = { node, walk };
  }
  return near.node;
}

function shortestFrom(source: number, neighbours: readonly [number, number][][]): Float32Array {
  const best = new Float32Array(neighbours.length).fill(Infinity);
  best[source] = 0;
  const queue = new TinyQueue<[number, number]>([[0, source]], (a, b) => a[0] - b[0]);
  for (let next = queue.pop(); next; next = queue.pop()) {
    const [minutes, node] = next;
    if (minutes > best[node]!) continue;
    for (const [neighbour, step] of neighbours[node]!)
      if (Math.fround(minutes + step) < best[neighbour]!) {
        best[neighbour] = minutes + step;
        queue.push([best[neighbour]!, neighbour]);
      }
  }
  return best;
}
