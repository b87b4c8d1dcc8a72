import { makeTown } from "@demo/town";
import { townRoads } from "@/gateways/town";
const t = makeTown(7); const r = townRoads(t);
console.log(t.nodes.length,t.edges.length,t.addresses.length);
const by=(n:string)=>t.addresses.filter(a=>a.line.endsWith(n));
for(const a of ["Harbourside","Old Town","Northfield","Moor Edge","Gull Island"]) console.log(a,by(a).length,new Set(by(a).map(x=>x.postcode)).size,["Harbourside","Old Town","Northfield","Moor Edge","Gull Island"].map(b=>r.minutes(by(a)[30]!,by(b)[60]!)));
console.log(t.addresses[3], Math.max(...t.addresses.map(a=>r.minutes(t.addresses[0]!,a))));
