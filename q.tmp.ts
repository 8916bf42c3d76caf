import { shopDayOf } from "@/server/day/build";
import { shopBays } from "@/server/bays/store";
import { planShop } from "@/core/schedule/plan-shop";
import { isRoomy, roomIn } from "@/core/space/room";
let t = performance.now();
const lap = (n: string) => { console.log(n, (performance.now() - t).toFixed(0)); t = performance.now(); };
const shop = shopDayOf(new Date().toISOString().slice(0, 10));
lap("shopDayOf");
for (const c of shop.cards) for (const b of shopBays()) { const r = c.asks.length ? roomIn(b, c.vehicle, c.asks,true) : [];  const r2 = c.asks.length ? roomIn(b, c.vehicle, c.asks) : []; if (r.length!==r2.length || r.every(isRoomy)!==r2.every(isRoomy)) console.log("differs",c.title,b.id); }
lap("both");
const p = planShop(shop, shopBays());
lap("planShop");
const p2 = planShop(shop, shopBays());
lap("again");
console.log(p2.plan.exact, p2.day.jobs.flatMap(j => j.tasks.filter(t => t.doneMin === null)).length, p2.leftOut, p2.plan.cost);
