import { gaussian, type Random } from "@/core/math/random";
import type { Move, SetOutPlan, TouchKind } from "@/core/setout";

/**
 * A bay as it may really be: points in space, a stand that may lean, instruments with causes behind
 * their errors. Own geometry, own noise and own constants throughout, nothing of core/ but the types:
 * it is here to find out where core's picture of the bay is wrong.
 */
type V = readonly [number, number, number];

const plus = (a: V, b: V): V => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
const minus = (a: V, b: V): V => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot = (a: V, b: V): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const long = (a: V): number => Math.sqrt(dot(a, a));
const level = (a: V): V => [a[0], a[1], 0];
const unit = (a: V): V => [a[0] / long(a), a[1] / long(a), a[2] / long(a)];
const quarter = (a: V): V => [-a[1], a[0], 0];
const about = (a: V, rad: number): V => {
  const [c, s] = [Math.cos(rad), Math.sin(rad)];
  return [c * a[0] - s * a[1], s * a[0] + c * a[1], a[2]];
};

/** What is wrong in a bay, beyond the noise its instruments state. Lengths in mm, angles in degrees. */
export type Cause = {
  /** Everything is drawn as widely as the settings allow for, not as on most cars. */
  wide?: boolean;
  /** One reading, any of the first ten, is misread by so much to either side. */
  slipMm?: number;
  /** Every hub cap stands so much farther out than the book says. */
  capsOutMm?: number;
  /** Both front hubs lie so much farther ahead. */
  frontHubsMm?: number;
  /** The tape is too short by this share: it shows too much. */
  tapeScale?: number;
  /** The stand leans: its top away from the car, or to vehicle right. */
  leanDeg?: number;
  sideDeg?: number;
  /** The laser sits on the beam at the height of its hooks, not beside the board. */
  laserOnBeam?: boolean;
  /** The printout of the rear toe is old: the car drives so far beside what it says. */
  thrustDeg?: number;
  /** One wheel's panel is clamped so much askew, at every reading of it, until it is seated anew. */
  seatMm?: number;
  /** Hanging the board shifts the stand by so much, whichever way. */
  hungMm?: number;
};

/** How things are where nothing is wrong, standard deviations. */
const USUAL = {
  /** A stand on its castors on a shop floor, and what rolling it a little changes. */
  leanDeg: 0.12,
  rolledLeanDeg: 0.04,
  /** One seating of a panel or of a wheel laser's clamp against another. */
  panelMm: 0.7,
  clampDeg: 0.03,
  /** A tape, hub caps of one axle, a front axle and a rear wheel's toe as they are on most cars. */
  tapeScale: 2.5e-4,
  capsMm: 1.4,
  axleMm: 1.1,
  toeDeg: 0.07,
  /** What hanging a board does to a stand, and what locking it does. */
  hungMm: 1.2,
  hungDeg: 0.05,
  finishedMm: 0.5,
  finishedDeg: 0.02,
};
/** The same where all of them are as far out as the settings allow for. */
const WIDE: typeof USUAL = {
  ...USUAL,
  leanDeg: 0.5,
  tapeScale: 3e-4,
  capsMm: 1.5,
  axleMm: 1.7,
  toeDeg: 0.1,
};

export type Place = { alongMm: number; acrossMm: number; twistRad: number; heightMm: number };

type Hub = "FL" | "FR" | "RL" | "RR";
const RAD = Math.PI / 180;
/** A laser that is clamped beside the board hangs so much under its middle, mm. */
const LASER_UNDER = 140;

export class Bay {
  private readonly hub: Record<Hub, V>;
  private readonly badge: { front: V; rear: V };
  /** How each rear wheel points, to the left of straight ahead, rad. */
  private readonly wheel: Record<"RL" | "RR", number>;
  private base: V;
  private heading: number;
  private joints: number[];
  private mastMm: number;
  private readonly slipAt: number;
  private readonly seat: Record<string, number> = {};
  private readonly scale: number;
  private leanDeg: number;
  private sideDeg: number;
  private taken = 0;

  constructor(
    private readonly plan: SetOutPlan,
    private readonly cause: Cause,
    private readonly random: Random,
  ) {
    const v = plan.vehicle;
    const near = (sigma: number): number => sigma * gaussian(random);
    const usual = cause.wide ? WIDE : USUAL;
    const ahead = cause.frontHubsMm ?? near(usual.axleMm);
    const out = [0, 1].map(() => cause.capsOutMm ?? near(usual.capsMm));
    const cap = (front: boolean, side: 1 | -1): V => [
      (front ? v.wheelbaseMm + ahead : 0) + near(v.hubSigmaMm),
      side * ((front ? v.trackFrontMm : v.trackRearMm) / 2 + v.hubCapOutMm + out[front ? 0 : 1]!) +
        near(v.hubSigmaMm),
      v.hubHeightMm,
    ];
    this.scale = cause.tapeScale ?? near(usual.tapeScale);
    this.hub = { FL: cap(true, 1), FR: cap(true, -1), RL: cap(false, 1), RR: cap(false, -1) };
    const badge = (b: { xMm: number; yMm: number; zMm: number }): V => [
      b.xMm + near(v.badgeSigmaMm),
      b.yMm + near(v.badgeSigmaMm),
      b.zMm,
    ];
    this.badge = { front: badge(v.frontBadge), rear: badge(v.rearBadge) };
    const toe = plan.rearToe ?? { leftRad: 0, rightRad: 0 };
    const stale = (cause.thrustDeg ?? 0) * RAD;
    const off = (): number => (cause.thrustDeg === undefined ? near(usual.toeDeg) * RAD : 0);
    this.wheel = { RL: -toe.leftRad + stale + off(), RR: toe.rightRad + stale + off() };
    this.slipAt = Math.floor(10 * random());
    const panels = ["panel-rl", "panel-rr", "panel-fl"];
    const side = random() < 0.5 ? -1 : 1;
    for (const p of panels) this.seat[p] = near(USUAL.panelMm);
    const askew = panels[Math.floor(3 * random())]!;
    if (cause.seatMm) this.seat[askew] = side * cause.seatMm;
    for (const w of ["scale-rl", "scale-rr"]) this.seat[w] = near(USUAL.clampDeg);
    this.leanDeg = cause.leanDeg ?? near(usual.leanDeg);
    this.sideDeg = cause.sideDeg ?? near(usual.leanDeg);

    // Rolled in by eye: some centimetres and a degree off.
    this.joints = plan.stand.joints.map(() => 0);
    this.mastMm = plan.target.placement.heightMm + 25 * (2 * random() - 1);
    this.heading = Math.PI + 2.4 * RAD * (2 * random() - 1);
    this.base = [0, 0, 0];
    const goal = this.wanted();
    const beside: V = [90 * (2 * random() - 1), 60 * (2 * random() - 1), 0];
    this.base = level(plus(minus(goal, this.at([0, 0, 0])), beside));
    // Its adjusters were left anywhere by whoever used it last.
    this.joints = plan.stand.joints.map(
      (j) => (j.kind === "yaw" ? j.limitRad : j.limitMm) * (random() - 0.5),
    );
  }

  /** The sheet's line on this very car: a point of it, and the way it runs. */
  private line(): { from: V; way: V } {
    const { datum } = this.plan.target;
    if (datum === "centreline")
      return {
        from: level(this.badge.rear),
        way: unit(level(minus(this.badge.front, this.badge.rear))),
      };
    const { RL, RR } = this.hub;
    const square = unit(quarter(level(minus(RR, RL))));
    const thrust = datum === "thrust" ? (this.wheel.RL + this.wheel.RR) / 2 : 0;
    return {
      from: level([(RL[0] + RR[0]) / 2, (RL[1] + RR[1]) / 2, 0]),
      way: about(square, thrust),
    };
  }

  /** What the sheet counts distances from. */
  private origin(): V {
    const v = this.plan.vehicle;
    if (this.plan.target.distanceFrom === "front-badge") return level(this.badge.front);
    const { FL, FR } = this.hub;
    const middle: V = [(FL[0] + FR[0]) / 2, (FL[1] + FR[1]) / 2, 0];
    const ahead = {
      "front-hub-line": 0,
      "bumper-face": v.frontOverhangMm,
      camera: v.camera.xMm - v.wheelbaseMm,
      // Boards stand ahead of the vehicle; nothing here counts from its rear.
      "rear-hub-line": NaN,
      "rear-badge": NaN,
      "rear-face": NaN,
      "line-hub": NaN,
    };
    const { way } = this.line();
    const by = ahead[this.plan.target.distanceFrom];
    return plus(middle, [way[0] * by, way[1] * by, 0]);
  }

  private wanted(): V {
    const { from, way } = this.line();
    const { alongMm, acrossMm } = this.plan.target.placement;
    const t = dot(minus(this.origin(), from), way) + alongMm;
    const left = quarter(way);
    return [
      from[0] + way[0] * t + left[0] * acrossMm,
      from[1] + way[1] * t + left[1] * acrossMm,
      0,
    ];
  }

  /**
   * Where a point of the board's own upright plane is: toward the car, to the board's left (vehicle
   * right), up from the floor; carried by the adjusters, then leaned with the whole stand about its
   * feet.
   */
  private at(point: V): V {
    const { stand } = this.plan;
    let p: V = [point[0] + stand.boardXMm, point[1] + stand.boardYMm, point[2]];
    for (let i = stand.joints.length - 1; i >= 0; i--) {
      const j = stand.joints[i]!;
      const value = this.joints[i]!;
      if (j.kind === "slide") p = plus(p, j.axis === "fore-aft" ? [value, 0, 0] : [0, value, 0]);
      else p = plus(about(p, value), [j.xMm, j.yMm, 0]);
    }
    const lean = this.leanDeg * RAD;
    p = [
      p[0] * Math.cos(lean) - p[2] * Math.sin(lean),
      p[1],
      p[0] * Math.sin(lean) + p[2] * Math.cos(lean),
    ];
    const side = this.sideDeg * RAD;
    p = [
      p[0],
      p[1] * Math.cos(side) + p[2] * Math.sin(side),
      p[2] * Math.cos(side) - p[1] * Math.sin(side),
    ];
    return plus(about(p, this.heading), this.base);
  }

  private readonly centre = (): V => this.at([0, 0, this.mastMm]);
  private readonly hook = (left: boolean): V =>
    this.at([0, (left ? -1 : 1) * this.plan.stand.beamHalfMm, this.plan.stand.hookHeightMm]);
  /** Which way the board looks, on the floor. */
  private readonly facing = (z: number): V =>
    unit(level(minus(this.at([1000, 0, z]), this.at([0, 0, z]))));

  /** How far the middle of the board truly stands from what the sheet wants. */
  truth(): Place {
    const { from, way } = this.line();
    const { placement } = this.plan.target;
    const c = level(this.centre());
    const face = this.facing(this.mastMm);
    const turned = Math.atan2(way[0] * -face[1] + way[1] * face[0], -dot(way, face));
    return {
      alongMm: dot(minus(c, this.origin()), way) - placement.alongMm,
      acrossMm: dot(minus(c, from), quarter(way)) - placement.acrossMm,
      twistRad: turned - placement.twistDeg * RAD,
      heightMm: this.centre()[2] - placement.heightMm,
    };
  }

  /**
   * What is read at a slot, misread and rounded as people read it.
   *
   * @param anew what it goes through is seated anew first
   */
  read(slotId: string, anew: boolean): number {
    if (anew)
      this.seat[slotId] =
        (slotId.startsWith("panel") ? USUAL.panelMm : USUAL.clampDeg) * gaussian(this.random);
    const slip = this.taken++ === this.slipAt ? (this.cause.slipMm ?? 0) : 0;
    const by = this.random() < 0.5 ? -slip : slip;
    const level = /^(tilt|bubble)-(pitch|roll)$/.exec(slotId);
    const apart = slotId === "ends-roll" ? 1 / (2 * this.plan.stand.beamHalfMm) : 1;
    if (!level) return apart * Math.round(this.shown(slotId) / apart + by);
    const [, instrument, part] = level;
    const deg = part === "pitch" ? this.leanDeg : this.sideDeg;
    // A figure of a level is misread by as many hundredths and a half as one of a tape by millimetres.
    const read = deg + 0.015 * by + (instrument === "tilt" ? 0.05 : 0.06) * gaussian(this.random);
    const step = instrument === "tilt" ? 0.01 : 0.025;
    return Math.round(read / step) * step * RAD;
  }

  private shown(slotId: string): number {
    const noise = (mm: number, mmPerM: number, lengthMm: number): number =>
      // Rounding to the millimetre is a part of what the instrument's book calls its uncertainty.
      Math.sqrt(Math.max(0, (mm + (mmPerM * lengthMm) / 1000) ** 2 - 1 / 12)) *
      gaussian(this.random);
    const [family, what, end] = slotId.split("-") as [string, string, string];
    switch (family) {
      case "tape": {
        const run = long(minus(this.hook(end === "l"), this.hub[what.toUpperCase() as Hub]));
        return run * (1 + this.scale) + noise(1, 0.25, run);
      }
      case "laser": {
        if (what !== "badge") break;
        const z = this.cause.laserOnBeam ? this.plan.stand.hookHeightMm : this.mastMm - LASER_UNDER;
        const from = level(this.at([0, 0, z]));
        const to = minus(level(this.badge.front), from);
        // Seen along the line, what lies to its right is vehicle left: there the dot is positive.
        return dot(to, quarter(this.facing(z))) + noise(1, 0.2, 3000);
      }
      case "panel": {
        const wheel = this.hub[what.toUpperCase() as Hub];
        const points = what === "fl" ? 0 : this.wheel[what.toUpperCase() as "RL" | "RR"];
        const normal = about([1, 0, 0], points);
        const from = this.hook(what.endsWith("l"));
        const beam = this.facing(this.plan.stand.hookHeightMm);
        const run = dot(minus(wheel, from), normal) / dot(beam, normal);
        return run + (this.seat[slotId] ?? 0) + noise(1, 0.1, run);
      }
      case "scale": {
        // From the middle of the beam to where the light from the wheel crosses it.
        const left = what === "rl";
        const wheel = this.hub[what.toUpperCase() as Hub];
        const askew = (this.seat[slotId] ?? 0) * RAD;
        const light = about([1, 0, 0], this.wheel[what.toUpperCase() as "RL" | "RR"] + askew);
        const middle = level(this.at([0, 0, this.plan.stand.hookHeightMm]));
        const toLeft = unit(minus(level(this.hook(true)), level(this.hook(false))));
        const across = quarter(light);
        const from = minus(level(wheel), middle);
        const run = dot(from, across) / dot(toLeft, across);
        return (left ? run : -run) + noise(0.8, 0.1, long(from));
      }
      case "height":
        return what === "rule"
          ? this.centre()[2] + noise(0.8, 0.2, 1200)
          : this.mastMm - this.plan.stand.scaleOffsetMm + noise(1.5, 0, 0);
    }
    if (slotId === "ends-roll") {
      // One end of the beam above the other, on a floor that is level: half a beam each way.
      const apart = 2 * this.plan.stand.beamHalfMm;
      const higher = this.hook(true)[2] - this.hook(false)[2];
      return (higher + noise(0.8, 0.2, 1000) - noise(0.8, 0.2, 1000)) / apart;
    }
    throw new Error(`This bay has no reading "${slotId}".`);
  }

  /** What finishing a stand does to it: castors wind up, a board has a weight. */
  touch(what: TouchKind): void {
    const by = what === "hung" ? USUAL.hungMm : USUAL.finishedMm;
    const heading = what === "hung" ? USUAL.hungDeg : USUAL.finishedDeg;
    const g = (): number => gaussian(this.random);
    this.base = plus(this.base, [by * g(), by * g(), 0]);
    this.heading += heading * RAD * g();
    if (what !== "hung") return;
    this.leanDeg += 0.04 * g();
    const far = this.cause.hungMm ?? 0;
    const way = 2 * Math.PI * this.random();
    this.base = plus(this.base, [far * Math.cos(way), far * Math.sin(way), 0]);
  }

  /** Hands carry out a move, a little wrong. */
  move(m: Move): void {
    const about1 = 1 + 0.015 * gaussian(this.random);
    const jolt: V = [0.5 * gaussian(this.random), 0.5 * gaussian(this.random), 0];
    this.base = plus(this.base, jolt);
    this.heading += 0.018 * RAD * gaussian(this.random);
    switch (m.kind) {
      case "roll":
        this.base = plus(this.base, [m.awayMm * about1, m.leftMm * about1, 0]);
        this.heading += m.turnRad * about1;
        this.leanDeg += USUAL.rolledLeanDeg * gaussian(this.random);
        this.sideDeg += USUAL.rolledLeanDeg * gaussian(this.random);
        return;
      case "yaw":
        this.joints[m.joint]! += m.turnRad * about1;
        return;
      case "slide":
        this.joints[m.joint]! += m.byMm * about1;
        return;
      case "crank":
        if (m.until) {
          // The scale is read to a millimetre and a half, and the hand stops half a millimetre off.
          const shown = this.mastMm - this.plan.stand.scaleOffsetMm;
          this.mastMm += m.until.shown - shown + Math.hypot(1.5, 0.5) * gaussian(this.random);
          return;
        }
        this.mastMm += m.upMm * about1 + 0.4 * gaussian(this.random);
        return;
      case "zero":
        this.joints.fill(0);
        return;
      default:
        throw new Error(`This bay has no hands for "${m.kind}".`);
    }
  }
}
