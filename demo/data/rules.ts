import type { RuleBook } from "@/core/owed";

/** The made-up shop's rule book: what makes which system owe what. Reasons are for customers; figures are invented. */
const book = (page: number): string => `Shop rule book, Hollin Quay, 2026, page ${page}`;

export const RULES: RuleBook = {
  rules: [
    { id: "glass-forward", when: ["glass-out"], system: "forward-camera", near: false, kind: "static", reason: "The forward camera looks through the windshield; new glass changes what it sees, so it must learn its aim again.", source: book(4), cancelledBy: null },
    { id: "camera-forward", when: ["camera-touched", "camera-replaced", "bracket-touched"], at: ["windshield"], system: "forward-camera", near: false, kind: "static", reason: "The forward camera was moved from where it sat; even a hair's breadth there is a lane's breadth down the road.", source: book(4), cancelledBy: null },
    { id: "unit-forward", when: ["unit-replaced", "unit-programmed"], system: "forward-camera", near: true, kind: "both", reason: "The control unit has lost the aim it had learned.", source: book(5), cancelledBy: "The maker's note says that this programming keeps the learned aim" },
    { id: "stance-forward", when: ["alignment", "suspension", "ride-height", "tyre-size"], system: "forward-camera", near: false, kind: "static", reason: "The car stands or tracks differently now; the camera must be shown again where straight ahead is.", source: book(6), cancelledBy: "The maker's table says that a change this small needs nothing" },
    { id: "steering-forward", when: ["steering"], system: "forward-camera", near: false, kind: "dynamic", reason: "The wheel's straight-ahead changed; the camera checks its own straight-ahead against it on the road.", source: book(6), cancelledBy: null },
    { id: "collision-forward", when: ["collision-near"], at: ["windshield", "front"], system: "forward-camera", near: false, kind: "both", reason: "A blow near the camera may have moved what holds it.", source: book(7), cancelledBy: null },
    { id: "airbag-all-forward", when: ["airbag"], system: "forward-camera", near: false, kind: "both", reason: "An airbag went off: the windshield and everything on it has been shaken.", source: book(7), cancelledBy: null },
    { id: "code-forward", when: ["code-stored"], system: "forward-camera", near: true, kind: "static", reason: "The camera itself reports that its aim is not right.", source: book(8), cancelledBy: "The code's own test shows a cause that has nothing to do with aim" },
    { id: "complaint-forward", when: ["complaint"], system: "forward-camera", near: true, kind: "both", reason: "The customer says that the assistance pulls or warns wrongly; the aim is proved before anything else is blamed.", source: book(8), cancelledBy: null },
    { id: "bulletin-forward", when: ["bulletin"], system: "forward-camera", near: true, kind: "dynamic", reason: "The maker has published that this camera must learn anew on the road.", source: book(8), cancelledBy: null },
    { id: "front-surround", when: ["grille-touched", "bumper-touched", "collision-near"], at: ["front"], system: "surround-view", near: true, kind: "static", reason: "The front camera of the surround view sits in what was taken off.", source: book(11), cancelledBy: null },
    { id: "rear-surround", when: ["tailgate-touched", "bumper-touched", "collision-near"], at: ["rear"], system: "surround-view", near: true, kind: "static", reason: "The rear camera of the surround view sits in what was taken off.", source: book(11), cancelledBy: null },
    { id: "side-surround", when: ["mirror-touched", "door-touched", "camera-touched", "camera-replaced", "collision-near"], at: ["left", "right"], system: "surround-view", near: true, kind: "static", reason: "A side camera of the surround view sits in the mirror; its picture no longer meets its neighbours'.", source: book(12), cancelledBy: null },
    { id: "height-surround", when: ["ride-height", "suspension"], system: "surround-view", near: false, kind: "static", reason: "The cameras look down from another height now.", source: book(12), cancelledBy: null },
    { id: "unit-surround", when: ["unit-replaced", "unit-programmed", "code-stored", "complaint"], system: "surround-view", near: true, kind: "static", reason: "The unit that joins the pictures must be shown the mats again.", source: book(12), cancelledBy: null },
    { id: "door-side", when: ["door-touched", "mirror-touched", "camera-touched", "camera-replaced", "collision-near"], at: ["left", "right"], system: "side-camera", near: true, kind: "static", reason: "The side camera hangs on the door that was moved; both sides are done together.", source: book(14), cancelledBy: null },
    { id: "arm-mirror", when: ["door-touched", "mirror-touched", "camera-touched", "camera-replaced", "collision-near", "code-stored"], at: ["left", "right"], system: "mirror-camera", near: true, kind: "static", reason: "The mirror camera's arm was moved; the driver would see the lane beside him in the wrong place.", source: book(15), cancelledBy: null },
    { id: "rear-camera", when: ["tailgate-touched", "bumper-touched", "camera-touched", "camera-replaced", "collision-near"], at: ["rear"], system: "rear-camera", near: true, kind: "static", reason: "The guide lines in the rear picture are drawn from where the camera was before.", source: book(16), cancelledBy: null },
    { id: "trailer-camera", when: ["camera-touched", "camera-replaced", "collision-near", "complaint", "unit-replaced"], at: ["trailer"], system: "trailer-camera", near: true, kind: "both", reason: "The trailer's camera must know its height and the trailer's length again.", source: book(17), cancelledBy: null },
    { id: "front-radar", when: ["bumper-touched", "grille-touched", "collision-near"], at: ["front"], system: "front-radar", near: true, kind: "static", reason: "The radar sits behind what was taken off; a finger's width of tilt is a car's width at a hundred metres.", source: book(20), cancelledBy: null },
    { id: "stance-radar", when: ["alignment", "suspension", "ride-height", "airbag"], system: "front-radar", near: false, kind: "static", reason: "The radar must be aimed along the line the car really drives.", source: book(20), cancelledBy: "The maker's table says that a change this small needs nothing" },
    { id: "unit-radar", when: ["unit-replaced", "unit-programmed", "code-stored"], system: "front-radar", near: true, kind: "both", reason: "The radar has lost the aim it had learned.", source: book(21), cancelledBy: null },
    { id: "corner-radar", when: ["bumper-touched", "collision-near"], at: ["rear"], system: "corner-radar", near: true, kind: "static", reason: "The corner radars sit behind the rear bumper; both sides are done together.", source: book(22), cancelledBy: null },
    { id: "angle-learn", when: ["steering", "alignment", "airbag"], system: "steering-angle", near: false, kind: "learn", reason: "The steering angle's zero must be taught before anything that steers by it.", source: book(2), cancelledBy: null },
    { id: "angle-unit", when: ["unit-replaced", "unit-programmed"], at: ["chassis"], system: "steering-angle", near: false, kind: "learn", reason: "The unit that knows the steering angle's zero was renewed.", source: book(2), cancelledBy: null },
  ],
  orders: [
    { id: "learn-first", first: { kind: "learn" }, then: { kind: "static" }, sameSystem: false, why: "The car must know its straight-ahead before a camera is shown it." },
    { id: "learn-before-road", first: { kind: "learn" }, then: { kind: "dynamic" }, sameSystem: false, why: "The car must know its straight-ahead before it learns on the road." },
    { id: "bay-before-road", first: { kind: "static" }, then: { kind: "dynamic" }, sameSystem: true, why: "The coarse aim from the bay comes before the fine aim from the road." },
    { id: "radar-before-camera", first: { system: "front-radar", kind: "static" }, then: { system: "forward-camera", kind: "dynamic" }, sameSystem: false, why: "On the road the camera checks itself against the radar." },
  ],
  efforts: [
    { system: "forward-camera", kind: "static", bayMinutes: 55, roadMinutes: 0, boards: ["HQ-14"], roomM: { ahead: 6, behind: 0.5, sides: 1.5 }, needs: { bonnet: "shut", lights: "off", engine: "off", doors: "shut" }, setUp: "front-stand" },
    { system: "forward-camera", kind: "dynamic", bayMinutes: 10, roadMinutes: 25, boards: [], roomM: { ahead: 0, behind: 0, sides: 0 }, needs: { lights: "on", engine: "running", bonnet: "shut" }, setUp: null },
    { system: "front-radar", kind: "static", bayMinutes: 35, roadMinutes: 0, boards: ["HQ-R1"], roomM: { ahead: 5, behind: 0.5, sides: 1.5 }, needs: { bonnet: "open", engine: "off" }, setUp: "front-stand" },
    { system: "front-radar", kind: "dynamic", bayMinutes: 10, roadMinutes: 20, boards: [], roomM: { ahead: 0, behind: 0, sides: 0 }, needs: {}, setUp: null },
    { system: "surround-view", kind: "static", bayMinutes: 50, roadMinutes: 0, boards: ["HQ-M1", "HQ-M2", "HQ-M3", "HQ-M4"], roomM: { ahead: 3, behind: 3, sides: 2.5 }, needs: { doors: "shut", lights: "on" }, setUp: "mats" },
    { system: "side-camera", kind: "static", bayMinutes: 40, roadMinutes: 0, boards: ["HQ-M1", "HQ-M2"], roomM: { ahead: 1, behind: 4, sides: 2.5 }, needs: {}, setUp: "mats" },
    { system: "mirror-camera", kind: "static", bayMinutes: 60, roadMinutes: 0, boards: ["HQ-F1"], roomM: { ahead: 1, behind: 12, sides: 3 }, needs: {}, setUp: null },
    { system: "rear-camera", kind: "static", bayMinutes: 25, roadMinutes: 0, boards: ["HQ-M3"], roomM: { ahead: 0, behind: 4, sides: 1.5 }, needs: {}, setUp: "mats" },
    { system: "trailer-camera", kind: "static", bayMinutes: 45, roadMinutes: 0, boards: ["HQ-M3"], roomM: { ahead: 1, behind: 4, sides: 2 }, needs: {}, setUp: null },
    { system: "corner-radar", kind: "static", bayMinutes: 40, roadMinutes: 0, boards: ["HQ-R2"], roomM: { ahead: 0, behind: 5, sides: 3 }, needs: {}, setUp: null },
    { system: "steering-angle", kind: "learn", bayMinutes: 10, roadMinutes: 0, boards: [], roomM: { ahead: 0, behind: 0, sides: 0 }, needs: {}, setUp: null },
  ],
}; // prettier-ignore
