export { adviseAim, type AimAdvice, type AimSigma, type AimTask, type Steps } from "./advice";
export { groundAt, meaningOf, type MirrorMeaning, type MirrorScene } from "./meaning";
export { AimError, aimShowing, shownAt, type Aim, type Place, type Shown } from "./view";
