/**
 * A radar that was shown a reflector elsewhere than it believes: it takes the bearing of the reflector
 * for the bearing of its place, so all it sees later is turned by the difference.
 */
export type RadarError = {
  /** To the left and upward, rad: by how much what it reports lies beside where things are. */
  yawRad: number;
  pitchRad: number;
};

type Place = { xMm: number; yMm: number; zMm: number };

/** Bearing and rise of a place seen from the radar, about its own axis ahead, rad. */
const bearing = (radar: Place, p: Place): { yaw: number; pitch: number } => {
  const [x, y, z] = [p.xMm - radar.xMm, p.yMm - radar.yMm, p.zMm - radar.zMm];
  return { yaw: Math.atan2(y, x), pitch: Math.atan2(z, Math.hypot(x, y)) };
};

/**
 * @param radar where it sits, vehicle axes, mm; it looks straight ahead
 * @param wanted where it takes the reflector to stand, and where it truly stands
 */
export function radarError(radar: Place, wanted: Place, truly: Place): RadarError {
  const [is, should] = [bearing(radar, truly), bearing(radar, wanted)];
  // What stands to the left of its place is taken for straight: all else comes out to the right.
  return { yawRad: should.yaw - is.yaw, pitchRad: should.pitch - is.pitch };
}

/** How far aside and how high it puts what is so far ahead, mm. */
export const radarOff = (
  { yawRad, pitchRad }: RadarError,
  atMm: number,
): { leftMm: number; upMm: number } => ({
  leftMm: Math.tan(yawRad) * atMm,
  upMm: Math.tan(pitchRad) * atMm,
});
